import { useRef, type PointerEvent, type ReactNode } from 'react';
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
  const drags = useDragsInside();
  return (
    <Group
      orientation={direction}
      {...(defaultLayout ? { defaultLayout } : {})}
      onLayoutChanged={onLayoutChanged}
      className="h-full w-full"
      // The package puts a style sheet into the page for it: then the browser works out every element's style anew.
      disableCursor
      {...drags}
    >
      {panels.flatMap((panel, i) => [
        ...(i > 0
          ? [
              <Separator
                key={`${panel.id}-edge`}
                aria-label="Resize"
                className={cx(
                  'relative z-10 bg-rule transition-colors duration-150 hover:bg-lagoon focus-visible:bg-lagoon',
                  // What is a pixel wide is taken hold of beside it, too.
                  'after:absolute after:-inset-1',
                  direction === 'horizontal' ? 'w-px after:cursor-ew-resize' : 'h-px after:cursor-ns-resize',
                )}
              />,
            ]
          : []),
        <Panel
          key={panel.id}
          id={panel.id}
          minSize={panel.min ?? 120}
          className="isolate contain-content"
          {...(panel.size === undefined ? {} : { defaultSize: panel.size })}
        >
          {panel.content}
        </Panel>,
      ])}
    </Group>
  );
}

/**
 * Who drags something inside a panel is over no edge: looking for one with every move of the pointer makes the browser lay out
 * the page each time. The edges’ own package passes over what is marked as seen to.
 */
function useDragsInside() {
  const held = useRef(false);
  return {
    onPointerDownCapture: () => {
      held.current = false;
    },
    onGotPointerCapture: ({ target }: PointerEvent<HTMLElement>) => {
      held.current = (target as Element).getAttribute('role') !== 'separator';
    },
    onLostPointerCapture: () => {
      held.current = false;
    },
    onPointerMoveCapture: (event: PointerEvent<HTMLElement>) => {
      if (held.current && event.buttons !== 0) event.preventDefault();
    },
  };
}
