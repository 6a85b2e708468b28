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
      <ellipse cx="10" cy="11" rx="7.4" ry="4.6" stroke="var(--plum)" strokeWidth="2" />
      <path d="M10 8.6v4.8M7.6 11h4.8" stroke="var(--plum)" strokeWidth="1.5" strokeLinecap="round" />
      <circle cx="15.6" cy="7.9" r="2.2" fill="var(--plum)" />
    </svg>
  );
}

export function TravelIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <path d="M3.5 15.5 8 6.5l8 4.5" stroke="var(--indigo)" strokeWidth="1.75" strokeDasharray="2.6 2" />
      {[
        [3.5, 15.5],
        [8, 6.5],
        [16, 11],
      ].map(([x, y]) => (
        <rect key={x} x={x! - 2} y={y! - 2} width="4" height="4" rx="1" fill="var(--indigo)" />
      ))}
    </svg>
  );
}

export function GlideIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <path d="M2.5 4.5c5 0 5.5 6.5 9 6.5s3-3 6-3" stroke="var(--slate)" strokeWidth="2" strokeLinecap="round" />
      <path d="M2 16.5c3-2 5-2 8-.6s5 1 8-.9" stroke="var(--slate)" strokeWidth="1.25" strokeOpacity="0.6" />
    </svg>
  );
}

export function RideIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <rect x="3" y="8.5" width="14" height="6" rx="2" stroke="var(--rust)" strokeWidth="1.75" />
      <path d="M2 17.5h16" stroke="var(--rust)" strokeWidth="1.5" strokeLinecap="round" />
      <circle cx="10" cy="5.2" r="2.2" fill="var(--rust)" />
    </svg>
  );
}

export function FollowIcon({ size = 18 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" fill="none" aria-hidden>
      <path d="M10 16 4 5.5M10 16l6-10.5" stroke="var(--rust)" strokeWidth="1.5" strokeLinecap="round" />
      <path d="M5 4.6a12 12 0 0 1 10 0" stroke="var(--rust)" strokeWidth="1.75" strokeDasharray="2.4 2" />
      <circle cx="10" cy="16" r="2.2" fill="var(--rust)" />
    </svg>
  );
}
