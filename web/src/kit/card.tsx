import type { ReactNode } from 'react';
import { cx } from './cx.ts';

/** A titled group of values and controls. */
export function Card({
  title,
  note,
  children,
  className,
}: {
  title: string;
  note?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section aria-label={title} className={cx('rounded-[10px] border border-rule bg-paper px-3 py-2.5', className)}>
      <header className="mb-1.5 flex items-baseline justify-between gap-2">
        <h3 className="font-semibold">{title}</h3>
        {note !== undefined && <span className="text-sm text-ink-faint">{note}</span>}
      </header>
      {children}
    </section>
  );
}

/** One line of a card: what it is, and its value or control. */
export function Line({ label, children }: { label: ReactNode; children: ReactNode }) {
  return (
    <div className="flex min-h-7 items-center justify-between gap-3">
      <span className="text-ink-soft">{label}</span>
      <span className="flex items-center gap-1 text-right">{children}</span>
    </div>
  );
}

export function Value({ children, unit }: { children: ReactNode; unit?: string }) {
  return (
    <span className="font-mono font-medium tabular-nums">
      {children}
      {unit && <span className="ml-1 font-normal text-ink-faint">{unit}</span>}
    </span>
  );
}
