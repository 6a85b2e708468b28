import type { ReactNode } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { cx } from './cx.ts';

interface PanelSpec {
  id: string;
  /** Pixels, or a percentage as a string. */
  size?: number | string;
  min?: number;
  content: ReactNode;
}

/** Panels beside or above each other; their sizes are remembered by `id`. */
export function Panels({
  id,
  direction = 'horizontal',
  panels,
}: {
  id: string;
  direction?: 'horizontal' | 'vertical';
  panels: readonly PanelSpec[];
}) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({
    id,
    panelIds: panels.map((panel) => panel.id),
    storage: localStorage,
  });
  return (
    <Group
      orientation={direction}
      {...(defaultLayout ? { defaultLayout } : {})}
      onLayoutChanged={onLayoutChanged}
      className="h-full w-full"
    >
      {panels.flatMap((panel, i) => [
        ...(i > 0
          ? [
              <Separator
                key={`${panel.id}-edge`}
                aria-label="Resize"
                className={cx(
                  'bg-rule transition-colors duration-150 hover:bg-lagoon focus-visible:bg-lagoon',
                  direction === 'horizontal' ? 'w-px' : 'h-px',
                )}
              />,
            ]
          : []),
        <Panel
          key={panel.id}
          id={panel.id}
          minSize={panel.min ?? 120}
          {...(panel.size === undefined ? {} : { defaultSize: panel.size })}
        >
          {panel.content}
        </Panel>,
      ])}
    </Group>
  );
}
