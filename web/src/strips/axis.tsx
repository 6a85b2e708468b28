import type { CompiledMove } from '@eskovan/core/move';
import { ArrowLeftRight, Layers } from 'lucide-react';
import { useEffect, useMemo, useState, type RefObject } from 'react';
import { create } from 'zustand';
import { useCommands } from '../desk/commands.ts';
import { workbench } from '../desk/workbench.ts';
import { Button, useLengthUnit } from '../kit/index.ts';
import { LABELS, panned, stripScaleOf, zoomed, type StripAxis, type StripScale } from './scales.ts';

/** Time or station stays as it was chosen, whatever move is looked at. */
const useAxisBy = create<{ by: StripAxis['by'] }>()(() => ({ by: 'time' }));

/** One press of a zoom command, or one notch of a wheel. */
const CLOSER = 0.8;

/** What runs from left to right in the strips of a move, how much of it is shown, and how that is changed. */
export function useStripAxis(
  move: Pick<CompiledMove, 'duration' | 'path'>,
  width: number,
  box: RefObject<HTMLElement | null>,
) {
  const by = useAxisBy((state) => state.by);
  const [shown, setShown] = useState({ from: 0, to: 1 });
  const { duration, path } = move;
  const lengths = useLengthUnit();
  const scale = useMemo(
    () => stripScaleOf(width, { duration, path }, { by, ...shown }, lengths),
    [width, duration, path, by, shown, lengths],
  );
  const whole = scale.by === 'time' ? duration : path!.length;
  /** A part of the whole that is under the pointer, or at the playhead. */
  const partAt = (pixels: number) => shown.from + ((pixels - LABELS) / scale.inner) * (shown.to - shown.from);
  const zoom = (factor: number, about: number) => setShown(zoomed({ by, ...shown }, factor, about, whole, lengths));
  const atPlayhead = () => {
    const { time } = workbench.get();
    return scale.shows(time) ? partAt(scale.x(time)) : (shown.from + shown.to) / 2;
  };
  // A wheel over the page must be able to keep the page from scrolling: React's own listeners cannot.
  useEffect(() => {
    const element = box.current;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const sideways = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY);
      if (sideways) setShown(panned({ by, ...shown }, (event.deltaX || event.deltaY) / scale.inner));
      else zoom(event.deltaY < 0 ? CLOSER : 1 / CLOSER, partAt(event.clientX - element!.getBoundingClientRect().left));
    };
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  });
  const change = (next: StripAxis['by']) => {
    useAxisBy.setState({ by: next });
    setShown({ from: 0, to: 1 });
  };
  const fit = () => setShown({ from: 0, to: 1 });
  const closer = shown.to - shown.from < 1;
  useCommands([
    {
      id: 'strips.axis',
      label: 'Strips by time or by station',
      group: 'Time',
      when: () => path !== null,
      run: () => change(by === 'time' ? 'station' : 'time'),
    },
    {
      id: 'strips.in',
      label: 'Look closer at the strips',
      group: 'Time',
      run: () => zoom(CLOSER * CLOSER, atPlayhead()),
    },
    {
      id: 'strips.out',
      label: 'Look at more of the strips',
      group: 'Time',
      run: () => zoom(1 / CLOSER / CLOSER, atPlayhead()),
    },
    {
      id: 'strips.left',
      label: 'Earlier in the strips',
      group: 'Time',
      when: () => closer,
      run: () => setShown(panned({ by, ...shown }, -0.5)),
    },
    {
      id: 'strips.right',
      label: 'Later in the strips',
      group: 'Time',
      when: () => closer,
      run: () => setShown(panned({ by, ...shown }, 0.5)),
    },
    { id: 'strips.all', label: 'All of it in the strips', group: 'Time', when: () => closer, run: fit },
  ]);
  return { scale, closer, fit, ...(path && { onBy: () => change(by === 'time' ? 'station' : 'time') }) };
}

interface AxisControlsProps {
  scale: StripScale;
  closer: boolean;
  fit: () => void;
  onBy?: () => void;
  extra?: { label: string; shown: boolean; onShown: () => void };
}

/** At the left of the ruler: what runs there, and the way back to the whole. */
export function AxisControls({ scale, closer, fit, onBy, extra }: AxisControlsProps) {
  return (
    <div className="absolute top-0.5 left-1.5 flex gap-1" onPointerDown={(event) => event.stopPropagation()}>
      {onBy && (
        <Button
          small
          tone="quiet"
          icon={<ArrowLeftRight size={12} />}
          title={scale.by === 'time' ? 'Show along the way instead' : 'Show over time instead'}
          onClick={onBy}
        >
          {scale.by === 'time' ? 'Time' : 'Station'}
        </Button>
      )}
      {extra && !closer && (
        <Button
          small
          tone="quiet"
          icon={<Layers size={12} />}
          pressed={extra.shown}
          aria-label={extra.label}
          title={`${extra.shown ? 'Hide' : 'Show'} what parts do meanwhile`}
          onClick={extra.onShown}
        />
      )}
      {closer && (
        <Button small tone="quiet" title="Show all of it" onClick={fit}>
          All
        </Button>
      )}
    </div>
  );
}
