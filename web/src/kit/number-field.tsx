import { fixed, METRES, shownIn } from '@eskovan/core/document';
import { useEffect, useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { cx } from './cx.ts';
import { useFieldGestures, type FieldGesture } from './field-gestures.ts';
import { useLengthUnit } from './length-unit.tsx';
import { readNumber, type Measure } from './number-entry.ts';
import { useTold } from './use-told.ts';

interface NumberFieldProps {
  label: string;
  value: number;
  onChange: (value: number) => void;
  measure?: Measure;
  unit?: string;
  /** What an arrow key adds; Shift makes it ten times as much. */
  step?: number;
  min?: number;
  max?: number;
  digits?: number;
  /** Frames per second, for times. */
  frames?: number;
  /** Another way in which what is typed may be meant, tried first; null where it is not. */
  reads?: (text: string) => number | null;
  /** Said of the field where it is pointed at. */
  title?: string;
  disabled?: boolean;
  /** Hides the label in the layout; it still names the field. */
  bare?: boolean;
}

/** So many figures have room in a field. */
const ROOM = 6;
/** How what is typed is read where lengths are millimetres. */
const SMALL: Partial<Record<Measure, Measure>> = { length: 'millimetre', speed: 'millimetre a second' };

/**
 * A number with its unit; lengths and speeds, that are given in metres, in the unit of the site. Takes arithmetic and units;
 * arrow keys step it; dragging its label scrubs it; Escape brings back what was there. A scrub, and an arrow key held down, is
 * one gesture.
 */
export function NumberField({
  label,
  value: shownByPage,
  onChange,
  measure = 'plain',
  unit: ownUnit,
  step: ownStep = 0.1,
  min = -Infinity,
  max = Infinity,
  digits: ownDigits = 2,
  frames,
  reads,
  title,
  disabled,
  bare,
}: NumberFieldProps) {
  const lengths = useLengthUnit();
  const small = lengths === METRES ? undefined : SMALL[measure];
  const [unit, step, digits, scale] =
    small && ownUnit
      ? [shownIn(ownUnit, lengths).unit, ownStep * lengths.steps, lengths.digits, lengths.metres]
      : [ownUnit, ownStep, ownDigits, 1];
  const { now: value, tell, forget } = useTold(shownByPage);
  const change = (next: number) => {
    tell(next);
    onChange(next);
  };
  const [typed, setTyped] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const scrub = useRef<{ x: number; from: number; gesture: FieldGesture } | null>(null);
  const held = useRef<FieldGesture | null>(null);
  const begin = useFieldGestures();
  const fault = useId();
  const clamp = (n: number) => Math.min(max, Math.max(min, n));
  const shown = typed ?? fixed(value / scale, digits);

  const commit = () => {
    if (typed === null) return;
    const number = readNumber(typed, small ?? measure, frames);
    const read = reads?.(typed) ?? (number === null ? null : number * scale);
    if (read === null) {
      setWrong(true);
      return;
    }
    setTyped(null);
    setWrong(false);
    if (clamp(read) !== value) change(clamp(read));
  };
  const endHeld = () => {
    held.current?.commit();
    held.current = null;
  };
  const stepBy = (amount: number, repeat: boolean) => {
    setTyped(null);
    setWrong(false);
    if (!repeat) {
      endHeld();
      held.current = begin();
    }
    change(clamp(Number((value + amount).toFixed(6))));
  };
  useEffect(
    () => () => {
      held.current?.commit();
      scrub.current?.gesture.commit();
    },
    [],
  );
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const size = step * (event.shiftKey ? 10 : 1);
    if (event.key === 'ArrowUp') stepBy(size, event.repeat);
    else if (event.key === 'ArrowDown') stepBy(-size, event.repeat);
    else if (event.key === 'Enter') commit();
    else if (event.key === 'Escape' && held.current) {
      held.current.cancel();
      forget();
      held.current = null;
    } else if (event.key === 'Escape' && (typed !== null || wrong)) {
      setTyped(null);
      setWrong(false);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const onPointerDown = (event: PointerEvent<HTMLSpanElement>) => {
    if (disabled || event.button !== 0) return;
    scrub.current = { x: event.clientX, from: value, gesture: begin() };
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const onPointerMove = (event: PointerEvent<HTMLSpanElement>) => {
    if (!scrub.current?.gesture.open) return;
    const moved = Math.round((event.clientX - scrub.current.x) / 4);
    const next = clamp(Number((scrub.current.from + moved * step).toFixed(6)));
    if (next !== value) change(next);
  };
  const endScrub = (keep: boolean) => () => {
    if (keep) scrub.current?.gesture.commit();
    else {
      scrub.current?.gesture.cancel();
      forget();
    }
    scrub.current = null;
  };

  return (
    <span className="block">
      <span className="flex min-h-7 items-center justify-between gap-2">
        {!bare && (
          <span
            aria-hidden
            className="cursor-ew-resize touch-none text-ink-soft select-none"
            onPointerDown={onPointerDown}
            onPointerMove={onPointerMove}
            onPointerUp={endScrub(true)}
            onPointerCancel={endScrub(false)}
          >
            {label}
          </span>
        )}
        <span className="flex items-center gap-1">
          <input
            title={title}
            aria-label={unit ? `${label}, ${unit}` : label}
            aria-invalid={wrong}
            aria-describedby={wrong ? fault : undefined}
            inputMode="decimal"
            disabled={disabled}
            value={shown}
            // Long numbers, as landscapes have them, are read whole.
            style={shown.length > ROOM ? { width: `calc(${shown.length}ch + 1rem)` } : undefined}
            onFocus={(event) => event.currentTarget.select()}
            onChange={(event) => {
              setTyped(event.currentTarget.value);
              setWrong(false);
            }}
            onBlur={() => {
              endHeld();
              commit();
            }}
            onKeyDown={onKeyDown}
            onKeyUp={endHeld}
            className={cx(
              'h-6.5 w-16 rounded-md border bg-raised px-1.5 text-right font-mono font-medium tabular-nums outline-offset-0 disabled:opacity-50',
              wrong ? 'border-madder text-madder' : 'border-rule hover:border-ink-faint',
            )}
          />
          {unit && <span className="min-w-6 font-mono text-ink-faint">{unit}</span>}
        </span>
      </span>
      {wrong && (
        <span id={fault} role="alert" className="block pb-1 text-right text-sm text-madder">
          This cannot be read as a number. Escape brings back the last one.
        </span>
      )}
    </span>
  );
}
