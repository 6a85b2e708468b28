/** How far something is, 0…1, with words for it. */
export function Progress({ label, fraction }: { label: string; fraction: number }) {
  const percent = Math.round(Math.min(1, Math.max(0, fraction)) * 100);
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={percent}
      className="h-1.5 w-full overflow-hidden rounded-full bg-ink/10"
    >
      <div className="h-full rounded-full bg-lagoon transition-[width] duration-150" style={{ width: `${percent}%` }} />
    </div>
  );
}
