import { lengthNumber, type LengthUnit } from '@eskovan/core/document';
import { joinExtents, OUTSIDE, type Survey } from '@eskovan/core/survey';
import {
  createContext,
  useContext,
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { useLengthUnit, useSize } from '../kit/index.ts';
import { StoreyPicker } from './storey-picker.tsx';
import { LineWork } from './line-work.tsx';
import { Cursor, NorthArrow, ScaleAndZoom } from './plan-corners.tsx';
import { DRAWN, type PlanHands } from './plan-hands.ts';
import { usePlanKeys } from './use-plan-keys.ts';
import {
  around,
  fitArea,
  grown,
  isLost,
  isShown,
  panBy,
  toPlan,
  zoomAt,
  type Area,
  type Viewport,
} from './viewport.ts';

/** Something that is to be seen: another key asks for it again. */
export interface PlanFocus {
  key: string;
  area: Area;
}

/** Below this width names of storeys have no room for their heights, pixels. */
const NARROW = 520;

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
  /** Tints the landscape by how steep it is. */
  slopes?: boolean;
  /** What all of the plan is, where that is not the house. */
  whole?: Area;
  /** Brought into view where it is not there yet. */
  focus?: PlanFocus | null;
  /** Becoming true takes the keys: what is pressed next belongs to the plan. */
  takesKeys?: boolean;
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
  const inside = survey.storeys.filter((storey) => storey.name !== OUTSIDE);
  // A survey has one storey at least.
  const [minX, minZ, maxX, maxZ] = joinExtents((inside.length > 0 ? inside : survey.storeys).map((s) => s.extent))!;
  return { minX, minZ, maxX, maxZ };
}

const signed = (metres: number, unit: LengthUnit) => `${metres < 0 ? '−' : '+'}${lengthNumber(Math.abs(metres), unit)}`;

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
  slopes = false,
  whole,
  focus = null,
  takesKeys = false,
}: PlanProps) {
  const box = useRef<HTMLDivElement>(null);
  const help = useId();
  const lengths = useLengthUnit();
  const size = useSize(box);
  const [view, setView] = useState<Viewport | null>(null);
  const pan = useRef<{ x: number; y: number } | null>(null);
  const { width, height } = size;
  const fitted = useMemo(
    () => (width > 0 ? fitArea(whole ?? areaOf(survey), width, height, compact ? 16 : 56) : null),
    [survey, whole, width, height, compact],
  );
  const shown = view ?? fitted ?? { x: 0, z: 0, scale: 1 };

  useEffect(() => {
    if (!focus || !fitted) return;
    setView((now) =>
      isShown(focus.area, now ?? fitted, width, height) && !isLost(focus.area, now ?? fitted, width, height)
        ? now
        : fitArea(grown(focus.area, around(focus.area, areaOf(survey))), width, height, 56),
    );
    // What is in view stays as it lies, also while it is changed by hand.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [focus?.key, fitted === null]);

  useEffect(() => {
    if (takesKeys) box.current?.focus({ preventScroll: true });
  }, [takesKeys]);
  const keys = usePlanKeys(shown, size, hands, setView);

  const local = (event: { clientX: number; clientY: number }): [number, number] => {
    const rect = box.current!.getBoundingClientRect();
    return [event.clientX - rect.left, event.clientY - rect.top];
  };
  const at = (event: { clientX: number; clientY: number }) => toPlan(shown, width, height, ...local(event));
  const reach = (event: { altKey: boolean }) => (event.altKey ? 0 : DRAWN / shown.scale);

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
    if (event.button === 0 && hands.onPress) hands.onPress(...at(event), reach(event));
    if (event.button !== 0 || !hands.onDrag) pan.current = { x: event.clientX, y: event.clientY };
  };
  const onPointerMove = (event: PointerEvent<SVGSVGElement>) => {
    if (pan.current) {
      const [dx, dy] = [event.clientX - pan.current.x, event.clientY - pan.current.y];
      pan.current = { x: event.clientX, y: event.clientY };
      setView((now) => panBy(now ?? fitted!, dx, dy));
    } else if (event.buttons === 0) hands.onHover?.(...at(event), reach(event));
    else hands.onDrag?.(...at(event));
  };
  const onPointerUp = (event: PointerEvent<SVGSVGElement>) => {
    if (!pan.current) hands.onRelease?.(...at(event));
    pan.current = null;
  };

  const toScreen = (x: number, z: number): [number, number] => [
    width / 2 + (x - shown.x) * shown.scale,
    height / 2 + (z - shown.z) * shown.scale,
  ];
  return (
    <PlanContext.Provider value={{ scale: shown.scale, at, toScreen }}>
      <div
        ref={box}
        className="relative h-full w-full touch-none overflow-hidden bg-desk focus-visible:-outline-offset-2"
        role="group"
        aria-label={label}
        aria-describedby={help}
        tabIndex={0}
        onKeyDown={keys.onKeyDown}
        onBlur={keys.hide}
      >
        {fitted && (
          <LineWork
            storey={survey.storeys[storey] ?? null}
            contours={survey.contours}
            relief={survey.relief}
            slopes={slopes}
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
            {keys.cursor && <Cursor at={keys.cursor} scale={shown.scale} />}
          </g>
        </svg>
        <p id={help} className="sr-only">
          {hands.onPress
            ? 'Arrows move the cursor, Enter presses there, plus and minus zoom.'
            : 'Arrows move the plan, plus and minus zoom, Home shows the whole.'}
        </p>
        <p className="sr-only" aria-live="polite">
          {keys.words}
        </p>
        {width > 0 && movers}
        {tools && <div className="absolute top-2.5 left-3 flex flex-wrap gap-1.5">{tools}</div>}
        {!compact && (
          <>
            <NorthArrow turn={north} />
            <ScaleAndZoom
              scale={shown.scale}
              onZoom={(factor) => setView(zoomAt(shown, width, height, width / 2, height / 2, factor))}
              onWhole={() => setView(null)}
              narrow={width < NARROW}
            />
          </>
        )}
        {survey.storeys.length > 1 && (
          <div className="absolute bottom-3 left-3">
            <StoreyPicker
              compact={compact === true || width < NARROW}
              value={String(storey)}
              onChange={(next) => onStorey(Number(next))}
              options={survey.storeys.map((s, i) => ({
                value: String(i),
                label: compact ? signed(s.elevation, lengths) : s.name,
                ...(compact || width < NARROW ? {} : { note: signed(s.elevation, lengths) }),
              }))}
            />
          </div>
        )}
      </div>
    </PlanContext.Provider>
  );
}
