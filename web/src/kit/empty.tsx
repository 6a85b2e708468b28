import type { ReactNode } from 'react';

/** Says what goes here and offers the one next step. */
export function Empty({ title, children, action }: { title: string; children?: ReactNode; action?: ReactNode }) {
  return (
    <div className="flex h-full flex-col items-center justify-center gap-3 p-8 text-center">
      <h2 className="text-lg font-semibold">{title}</h2>
      {children && <p className="max-w-96 text-ink-soft">{children}</p>}
      {action}
    </div>
  );
}
