/** The mark: a path and the eye on it. */
export function Mark({ size = 24 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" fill="none" aria-hidden>
      <path d="M3 23c5 0 7-4 9-8s4-8 8-6 3 5 6 4" stroke="var(--lagoon)" strokeWidth="3.2" strokeLinecap="round" />
      <circle cx="26.5" cy="12.4" r="4" fill="var(--ochre)" />
    </svg>
  );
}
