import type { Survey } from '@eskovan/core/survey';
import { Maximize, Minus, Plus } from 'lucide-react';
import {
  createContext,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { Button, Segmented, useSize } from '../kit/index.ts';
import { LineWork } from './line-work.tsx';
import { barLength, fitArea, panBy, toPlan, zoomAt, type Area, type Viewport } from './viewport.ts';

/** A press on the plan that no drawn thing took. */
export interface PlanHands {
  onPress?: (x: number, z: number) => void;
  onDrag?: (x: number, z: number) => void;
  onRelease?: (x: number, z: number) => void;
  /** The pointer moves over the plan without a button down. */
  onHover?: (x: number, z: number) => void;
  onDoublePress?: (x: number, z: number) => void;
}

interface PlanProps {
  survey: Survey;
  storey: number;
  onStorey: (index: number) => void;
  hands?: PlanHands;
  /** Words for what the plan shows. */
  label: string;
  /** Tools, over the plan's upper left corner. */
  tools?: ReactNode;
  cursor?: string;
  /** Drawn over the plan, in metres. */
  children?: ReactNode;
  /** Things that move often, each a layer of its own; they place themselves by `toScreen`. */
  movers?: ReactNode;
  compact?: boolean;
  /** Where north is: angle from up towards the right, radians. */
  north?: number;
  /** Shows where a walker gets to. */
  walkway?: boolean;
}

interface PlanScale {
  /** Pixels per metre: things of a fixed size on screen divide by it. */
  scale: number;
  /** Plan point of a pointer event. */
  at: (event: { clientX: number; clientY: number }) => [number, number];
  /** Pixels in the pane of a plan point. */
  toScreen: (x: number, z: number) => [number, number];
}

const PlanContext = createContext<PlanScale>({ scale: 1, at: () => [0, 0], toScreen: () => [0, 0] });
export const usePlan = () => useContext(PlanContext);

/** The part of the plan worth showing first: the floors of the house, not the whole landscape around it. */
function areaOf(survey: Survey): Area {
  const inside = survey.storeys.filter((storey) => storey.name !== 'Outside');
  const extents = (inside.length > 0 ? inside : survey.storeys).map(({ extent }) => extent);
  const side = (k: number, pick: (...values: number[]) => number) => pick(...extents.map((extent) => extent[k]!));
  return { minX: side(0, Math.min), minZ: side(1, Math.min), maxX: side(2, Math.max), maxZ: side(3, Math.max) };
}

const signed = (metres: number) => `${metres < 0 ? '−' : '+'}${Math.abs(metres).toFixed(2)}`;

/** The plan: the main working surface. Drag to move it, wheel to zoom. */
export function Plan({
  survey,
  storey,
  onStorey,
  hands = {},
  label,
  tools,
  cursor,
  children,
  movers,
  compact,
  north = 0,
  walkway = false,
}: PlanProps) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box);
  const [view, setView] = useState<Viewport | null>(null);
  const pan = useRef<{ x: number; y: number } | null>(null);
  const { width, height } = size;
  const fitted = useMemo(
    () => (width > 0 ? fitArea(areaOf(survey), width, height, compact ? 16 : 56) : null),
    [survey, width, height, compact],
  );
  const shown = view ?? fitted ?? { x: 0, z: 0, scale: 1 };

  const local = (event: { clientX: number; clientY: number }): [number, number] => {
    const rect = box.current!.getBoundingClientRect();
    return [event.clientX - rect.left, event.clientY - rect.top];
  };
  const at = (event: { clientX: number; clientY: number }) => toPlan(shown, width, height, ...local(event));

  useEffect(() => {
    const element = box.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const rect = element.getBoundingClientRect();
      setView((now) =>
        zoomAt(
          now ?? fitted!,
          width,
          height,
          event.clientX - rect.left,
          event.clientY - rect.top,
          Math.exp(-event.deltaY * 0.0015),
        ),
      );
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [fitted, width, height]);

  const onPointerDown = (event: PointerEvent<SVGSVGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    if (event.button === 0 && hands.onPress) hands.onPress(...at(event));
    if (event.button !== 0 || !hands.onDrag) pan.current = { x: event.clientX, y: event.clientY };
  };
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (pan.current) {
      const [dx, dy] = [event.clientX - pan.current.x, event.clientY - pan.current.y];
      pan.current = { x: event.clientX, y: event.clientY };
      setView((now) => panBy(now ?? fitted!, dx, dy));
    } else if (event.buttons === 0) hands.onHover?.(...at(event));
    else hands.onDrag?.(...at(event));
  };
  const onPointerUp = (event: PointerEvent<SVGSVGElement>) => {
    if (!pan.current) hands.onRelease?.(...at(event));
    pan.current = null;
  };

  const scaleBar = barLength(shown.scale);
  const toScreen = (x: number, z: number): [number, number] => [
    width / 2 + (x - shown.x) * shown.scale,
    height / 2 + (z - shown.z) * shown.scale,
  ];
  return (
    <PlanContext.Provider value={{ scale: shown.scale, at, toScreen }}>
      <div
        ref={box}
        className="relative h-full w-full touch-none overflow-hidden bg-desk"
        role="group"
        aria-label={label}
      >
        {fitted && (
          <LineWork
            storey={survey.storeys[storey] ?? null}
            view={shown}
            width={width}
            height={height}
            walkway={walkway}
          />
        )}
        <svg
          className="absolute inset-0 h-full w-full"
          style={{ cursor: cursor ?? 'grab' }}
          data-testid="plan-drawing"
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerUp}
          onPointerCancel={onPointerUp}
          onDoubleClick={(event) => hands.onDoublePress?.(...at(event))}
          onContextMenu={(event) => event.preventDefault()}
        >
          <g
            transform={`translate(${width / 2 - shown.x * shown.scale} ${height / 2 - shown.z * shown.scale}) scale(${shown.scale})`}
          >
            {children}
          </g>
        </svg>
        {width > 0 && movers}
        {tools && <div className="absolute top-2.5 left-3 flex flex-wrap gap-1.5">{tools}</div>}
        {!compact && (
          <>
            <NorthArrow turn={north} />
            <div className="absolute right-3 bottom-3 flex items-end gap-3">
              <div className="pb-1 text-center font-mono text-xs text-ink-faint">
                <div
                  className="mb-0.5 border-x border-b border-ink-faint"
                  style={{ width: scaleBar * shown.scale, height: 5 }}
                />
                {scaleBar} m
              </div>
              <div className="flex overflow-hidden rounded-lg border border-rule bg-paper">
                <Button
                  tone="quiet"
                  small
                  icon={<Minus size={14} />}
                  aria-label="Zoom out"
                  onClick={() => setView(zoomAt(shown, width, height, width / 2, height / 2, 0.8))}
                />
                <Button
                  tone="quiet"
                  small
                  icon={<Plus size={14} />}
                  aria-label="Zoom in"
                  onClick={() => setView(zoomAt(shown, width, height, width / 2, height / 2, 1.25))}
                />
                <Button
                  tone="quiet"
                  small
                  icon={<Maximize size={13} />}
                  aria-label="Show the whole plan"
                  onClick={() => setView(null)}
                />
              </div>
            </div>
          </>
        )}
        {survey.storeys.length > 1 && (
          <div className="absolute bottom-3 left-3">
            <Segmented
              label="Storey"
              value={String(storey)}
              onChange={(next) => onStorey(Number(next))}
              options={survey.storeys.map((s, i) => ({
                value: String(i),
                label: compact ? signed(s.elevation) : s.name,
                ...(compact ? {} : { note: signed(s.elevation) }),
              }))}
            />
          </div>
        )}
      </div>
    </PlanContext.Provider>
  );
}

function NorthArrow({ turn }: { turn: number }) {
  return (
    <svg
      className="pointer-events-none absolute top-3 right-3"
      width="44"
      height="26"
      viewBox="0 0 44 26"
      aria-label={turn === 0 ? 'North is up' : `North is ${Math.round((turn * 180) / Math.PI)}° to the right of up`}
    >
      <circle cx="13" cy="13" r="11" fill="none" stroke="var(--ink-faint)" />
      <path d="M13 4l4.5 15L13 16l-4.5 3z" fill="var(--ink)" transform={`rotate(${(turn * 180) / Math.PI} 13 13)`} />
      <text x="30" y="17" fontSize="11" fill="var(--ink-faint)">
        N
      </text>
    </svg>
  );
}
