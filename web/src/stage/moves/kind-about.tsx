import type { MoveBody } from '@eskovan/core/document';
import type { ReactNode } from 'react';

export type KindName = MoveBody['kind'];

/** What each kind of move is, in a line, and as a small picture of its camera at work. */
export const ABOUT: Record<KindName, { label: string; note: string; colour: string; way: string; scene: ReactNode }> = {
  walk: {
    label: 'Walk',
    note: 'On the floor, at eye height. Draw it on the plan.',
    colour: 'var(--lagoon)',
    way: 'M6 30C16 30 18 18 28 18S42 10 50 10',
    scene: <path d="M2 36H56M24 36V24H38" />,
  },
  orbit: {
    label: 'Orbit',
    note: 'Round something. Press what it is to go round.',
    colour: 'var(--plum)',
    way: 'M29 34a20 11 0 1 1 .1 0',
    scene: <path d="M24 16h10v12H24z" />,
  },
  travel: {
    label: 'Travel',
    note: 'Through poses that you keep, at their times.',
    colour: 'var(--indigo)',
    way: 'M6 32C14 32 14 10 26 10S40 26 52 22',
    scene: <path d="M4 30h4v4H4zM24 8h4v4h-4zM50 20h4v4h-4z" />,
  },
  glide: {
    label: 'Glide',
    note: 'In the air or on a rail. Draw it, raise it in the section.',
    colour: 'var(--slate)',
    way: 'M4 8C20 8 20 24 32 24S44 18 54 16',
    scene: <path d="M2 36c8-6 14-6 22-1s20 2 32-3" />,
  },
  ride: {
    label: 'Ride',
    note: 'On something that moves. Press what is to carry it.',
    colour: 'var(--rust)',
    way: 'M8 18H50',
    scene: <path d="M2 34H56M6 32a2 2 0 1 0 .1 0M50 32a2 2 0 1 0 .1 0" />,
  },
  follow: {
    label: 'Stand and follow',
    note: 'Stands, and keeps its eye on something that moves.',
    colour: 'var(--rust)',
    way: 'M6 12C20 6 38 6 52 12',
    scene: <path d="M29 36 14 12M29 36l15-24M26 34h6v4h-6z" />,
  },
};

/** A drawing of a kind of move, with its camera going its way: what every project can show. */
export function MovingMark({ kind }: { kind: KindName }) {
  const { colour, way, scene } = ABOUT[kind];
  return (
    <svg viewBox="0 0 58 40" fill="none" aria-hidden className="h-full w-full bg-desk">
      <g stroke="var(--ink-faint)" strokeOpacity={0.55} strokeWidth={1.25}>
        {scene}
      </g>
      <path d={way} stroke={colour} strokeOpacity={0.45} strokeWidth={1.5} strokeDasharray="3 2.5" />
      <circle r={3.4} fill={colour}>
        <animateMotion
          path={way}
          dur="3.2s"
          repeatCount="indefinite"
          calcMode="spline"
          keyTimes="0;1"
          keySplines=".4 0 .6 1"
        />
      </circle>
    </svg>
  );
}

/** In the order in which they are offered. */
export const KINDS: readonly KindName[] = ['walk', 'orbit', 'travel', 'glide', 'ride', 'follow'];
