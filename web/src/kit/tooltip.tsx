import { Tooltip } from 'radix-ui';
import type { ReactElement } from 'react';

/** Words for a control that shows only an icon; never the only place where something is said. */
export function Hint({ text, children }: { text: string; children: ReactElement }) {
  return (
    <Tooltip.Root delayDuration={400}>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content sideOffset={6} className="z-50 rounded-md bg-ink px-2 py-1 text-sm text-paper shadow-lift">
          {text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
