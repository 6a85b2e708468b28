import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { cx } from './cx.ts';

interface DialogProps {
  open: boolean;
  onClose: () => void;
  title: string;
  description?: string;
  /** For many pictures. */
  wide?: boolean;
  children: ReactNode;
}

export function Dialog({ open, onClose, title, description, wide, children }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ink/35" />
        <Radix.Content
          aria-describedby={description ? undefined : ''}
          className={cx(
            'fixed top-1/2 left-1/2 z-50 max-h-[88vh] -translate-1/2 overflow-auto rounded-[10px] border border-rule bg-paper p-5 shadow-lift',
            wide ? 'w-[min(900px,94vw)]' : 'w-[min(520px,92vw)]',
          )}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <div>
              <Radix.Title className="text-lg font-semibold">{title}</Radix.Title>
              {description && <Radix.Description className="mt-1 text-ink-soft">{description}</Radix.Description>}
            </div>
            <Radix.Close aria-label="Close" className="rounded-md p-1 text-ink-faint hover:bg-ink/5 hover:text-ink">
              <X size={16} />
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
