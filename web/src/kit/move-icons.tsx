/** The marks of our kinds of move. */
export function WalkIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <path d="M2.5 15c4 0 4-3.2 6-6.2S12.4 3.4 15 5" stroke="var(--lagoon)" strokeWidth="2" strokeLinecap="round" />
      <circle cx="16" cy="5.6" r="2.2" fill="var(--lagoon)" />
    </svg>
  );
}
