import { SLOPE_CLASSES } from '@eskovan/core/survey';
import { tintOf } from '../../plan/relief-image.ts';

/** What the tints of a plan's slopes mean. */
export function SlopeKey() {
  return (
    <ul
      aria-label="Slopes"
      className="pointer-events-none flex h-7 items-center gap-2 rounded-lg border border-rule bg-paper px-2 text-xs text-ink-soft"
    >
      {SLOPE_CLASSES.map(({ words }, i) => (
        <li key={words} className="flex items-center gap-1 whitespace-nowrap">
          <span
            aria-hidden
            className="h-3 w-3 rounded-sm border border-rule bg-rust"
            style={{ backgroundColor: `color-mix(in srgb, var(--rust) ${Math.round(100 * tintOf(i))}%, transparent)` }}
          />
          {words}
        </li>
      ))}
    </ul>
  );
}
