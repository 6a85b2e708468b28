/** The marks of our kinds of move. */
export function WalkIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <path d="M2.5 15c4 0 4-3.2 6-6.2S12.4 3.4 15 5" stroke="var(--lagoon)" strokeWidth="2" strokeLinecap="round" />
      <circle cx="16" cy="5.6" r="2.2" fill="var(--lagoon)" />
    </svg>
  );
}

export function OrbitIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <ellipse cx="10" cy="11" rx="7.4" ry="4.6" stroke="var(--lagoon)" strokeWidth="2" />
      <path d="M10 8.6v4.8M7.6 11h4.8" stroke="var(--lagoon)" strokeWidth="1.5" strokeLinecap="round" />
      <circle cx="15.6" cy="7.9" r="2.2" fill="var(--lagoon)" />
    </svg>
  );
}
