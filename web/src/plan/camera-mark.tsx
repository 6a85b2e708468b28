import type { CameraSample } from '@eskovan/core/move';
import { anglesOf, forwardOf } from '@eskovan/core/geometry';
import { circleOfConfusionMm, depthOfField, isFocused, Projection } from '@eskovan/core/optics';
import { seenField, type Blocking, type SeenWish } from '@eskovan/core/survey';
import { howOf, type How } from '../desk/selection.ts';
import { usePlan } from './plan.tsx';

interface CameraMarkProps {
  sample: CameraSample;
  aspect: number;
  /** A short name beside it. */
  label?: string;
  faint?: boolean;
  /** How far its number steps aside, so that it lies on no other; metres. */
  aside?: readonly [number, number];
  onPress?: (how: How) => void;
  /** What stops a view on this storey; absent: the cone is as it is. */
  walls?: Blocking;
}

/** The cone of view on the plan is so many metres long, and beside a small thing no more than so many pixels. */
const REACH = 3.2;
const MOST_PIXELS = 260;

/** A camera on the plan: where it stands and what it sees. */
export function CameraMark({ sample, aspect, label, faint, aside = [0, 0], onPress, walls }: CameraMarkProps) {
  const { scale } = usePlan();
  const [x, , z] = sample.position;
  const { pan } = anglesOf(sample.orientation);
  const { left, right } = new Projection(sample.view, aspect).edges;
  const reach = Math.min(REACH, MOST_PIXELS / scale);
  const edge = (angle: number) => `${x - reach * Math.sin(angle)} ${z - reach * Math.cos(angle)}`;
  const r = 9 / scale;
  const tip = [x - r * 0.75 * Math.sin(pan), z - r * 0.75 * Math.cos(pan)];
  const wing = (turn: number) => `${x - r * 0.62 * Math.sin(pan + turn)} ${z - r * 0.62 * Math.cos(pan + turn)}`;
  return (
    <g
      style={{ cursor: onPress ? 'pointer' : undefined, pointerEvents: onPress ? undefined : 'none' }}
      onPointerDown={
        onPress &&
        ((event) => {
          event.stopPropagation();
          onPress(howOf(event));
        })
      }
    >
      {/* Only the number takes a press: who stands in another view's cone means the floor. */}
      <path
        pointerEvents="none"
        d={
          sample.view.kind === 'parallel'
            ? strip(sample, aspect, reach)
            : walls
              ? fieldPath(walls, { x, z, from: left - pan, to: right - pan, reach: SEEN })
              : `M${x} ${z}L${edge(pan - left)}A${reach} ${reach} 0 0 1 ${edge(pan - right)}Z`
        }
        fill={faint ? 'var(--ink-faint)' : 'var(--ochre)'}
        fillOpacity={faint ? 0.12 : 0.22}
        stroke={faint || walls ? 'none' : 'var(--ochre)'}
        strokeWidth={1}
        strokeDasharray="3 3"
        vectorEffect="non-scaling-stroke"
      />
      {!faint && <SharpBand sample={sample} aspect={aspect} />}
      {(aside[0] !== 0 || aside[1] !== 0) && (
        <path
          d={`M${x} ${z}L${x + aside[0]} ${z + aside[1]}`}
          stroke="var(--ink-soft)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
      )}
      <circle
        cx={x + aside[0]}
        cy={z + aside[1]}
        r={r}
        fill={faint ? 'var(--paper)' : 'var(--ink)'}
        stroke={faint ? 'var(--ink-soft)' : 'var(--paper)'}
        strokeWidth={1.25}
        vectorEffect="non-scaling-stroke"
      />
      {label ? (
        <text
          x={x + aside[0]}
          y={z + aside[1] + 4 / scale}
          fontSize={11 / scale}
          textAnchor="middle"
          fill={faint ? 'var(--ink)' : 'var(--paper)'}
          fontWeight="600"
        >
          {label}
        </text>
      ) : (
        <path d={`M${tip[0]} ${tip[1]}L${wing(2.3)}L${wing(-2.3)}Z`} fill="var(--ochre)" />
      )}
    </g>
  );
}

/** What is sharp, between two planes across the axis; nothing where everything is. */
function SharpBand({ sample, aspect }: Pick<CameraMarkProps, 'sample' | 'aspect'>) {
  const { view, position, orientation } = sample;
  if (!isFocused(view)) return null;
  const { focalLengthMm, fNumber, focus, sensor } = view;
  const { near, far } = depthOfField(focalLengthMm, fNumber, focus, circleOfConfusionMm(sensor));
  const { left, right } = new Projection(view, aspect).window;
  const { pan } = anglesOf(orientation);
  const [sin, cos] = [Math.sin(pan), Math.cos(pan)];
  const at = (slope: number, ahead: number) =>
    `${position[0] + cos * slope * ahead - sin * ahead} ${position[2] - sin * slope * ahead - cos * ahead}`;
  const end = Math.min(far, SEEN);
  return (
    <path
      data-testid="sharp-band"
      d={`M${at(left, near)}L${at(left, end)}L${at(right, end)}L${at(right, near)}Z`}
      fill="var(--lagoon)"
      fillOpacity={0.2}
      stroke="var(--lagoon)"
      vectorEffect="non-scaling-stroke"
    />
  );
}

/** A field of view as far as walls let it be seen. */
function fieldPath(walls: Blocking, wish: SeenWish): string {
  const points = seenField(walls, wish);
  const parts: string[] = [];
  for (let i = 0; i < points.length; i += 2) parts.push(`${points[i]!.toFixed(3)} ${points[i + 1]!.toFixed(3)}`);
  return `M${parts.join('L')}Z`;
}
/** How far it is shown, metres. */
const SEEN = 14;

/** What a picture without perspective sees: as wide as it is, and of the same reach as a cone; from above all of it. */
function strip({ position: [x, , z], orientation, view }: CameraSample, aspect: number, reach: number): string {
  const { pan } = anglesOf(orientation);
  const { width, height } = new Projection(view, aspect).footprint(1);
  const half = width / 2;
  const [near, far] = -forwardOf(orientation)[1] > FROM_ABOVE ? [-height / 2, height / 2] : [0, reach];
  const [sin, cos] = [Math.sin(pan), Math.cos(pan)];
  const at = (right: number, ahead: number) => `${x + cos * right - sin * ahead} ${z - sin * right - cos * ahead}`;
  return `M${at(-half, near)}L${at(-half, far)}L${at(half, far)}L${at(half, near)}Z`;
}
/** Who looks down by more than the sine of this sees a plan. */
const FROM_ABOVE = 0.95;

/**
 * The camera that moves: a small layer of its own, shifted and turned, so that following it redraws nothing of the
 * plan.
 */
export function MovingCamera({ sample, aspect }: { sample: CameraSample; aspect: number }) {
  const { scale, toScreen } = usePlan();
  const [x, , z] = sample.position;
  const [px, py] = toScreen(x, z);
  const { pan } = anglesOf(sample.orientation);
  const { left, right } = new Projection(sample.view, aspect).edges;
  const reach = Math.min(260, Math.max(34, REACH * scale));
  const edge = (angle: number) => `${(-reach * Math.sin(angle)).toFixed(1)} ${(-reach * Math.cos(angle)).toFixed(1)}`;
  return (
    <div
      aria-hidden
      data-testid="moving-camera"
      className="pointer-events-none absolute top-0 left-0 will-change-transform"
      style={{ transform: `translate(${px.toFixed(2)}px, ${py.toFixed(2)}px) rotate(${-pan}rad)` }}
    >
      <svg
        width={2 * reach}
        height={reach + 12}
        viewBox={`${-reach} ${-reach} ${2 * reach} ${reach + 12}`}
        style={{ position: 'absolute', left: -reach, top: -reach }}
      >
        <path
          d={`M0 0L${edge(-left)}A${reach} ${reach} 0 0 1 ${edge(-right)}Z`}
          fill="var(--ochre)"
          fillOpacity="0.22"
          stroke="var(--ochre)"
          strokeDasharray="3 3"
        />
        <circle r="8.5" fill="var(--ink)" stroke="var(--paper)" strokeWidth="1.25" />
        <path d="M0 -6L4.6 4L-4.6 4Z" fill="var(--ochre)" />
      </svg>
    </div>
  );
}

/** Where the camera will be, and which way it will look: fainter the later. */
export function Ghost({ sample, strength }: { sample: CameraSample; strength: number }) {
  const { toScreen } = usePlan();
  const [px, py] = toScreen(sample.position[0], sample.position[2]);
  const { pan } = anglesOf(sample.orientation);
  return (
    <svg
      aria-hidden
      data-testid="ghost"
      width={24}
      height={24}
      viewBox="-12 -12 24 24"
      className="pointer-events-none absolute -top-3 -left-3 will-change-transform"
      style={{ transform: `translate(${px.toFixed(2)}px, ${py.toFixed(2)}px) rotate(${-pan}rad)`, opacity: strength }}
    >
      <path d="M0 -11V-5" stroke="var(--ochre)" strokeWidth="2" strokeLinecap="round" />
      <circle r="5" fill="var(--paper)" stroke="var(--ochre)" strokeWidth="2" />
    </svg>
  );
}
