import { ToggleGroup } from 'radix-ui';
import { cx } from './cx.ts';

interface SegmentedProps<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string; note?: string }[];
  onChange: (value: T) => void;
  className?: string;
}

/** One of a few, side by side. */
export function Segmented<T extends string>({ label, value, options, onChange, className }: SegmentedProps<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next && onChange(next as T)}
      className={cx('inline-flex overflow-hidden rounded-lg border border-rule bg-paper', className)}
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className="h-7 border-l border-rule px-2.5 font-medium text-ink-soft transition-colors duration-150 first:border-l-0 hover:text-ink focus-visible:-outline-offset-2 data-[state=on]:bg-ink data-[state=on]:text-paper"
        >
          {option.label}
          {option.note && <span className="ml-1.5 font-mono text-sm">{option.note}</span>}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
