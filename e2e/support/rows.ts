import type { BodyOf } from '@eskovan/core/document';

const LENS = { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] as [number, number] };

export const VIEW: BodyOf<'view'> = {
  pose: { position: [1, 1.6, 2], orientation: [0, 0, 0, 1] },
  lens: LENS,
  thumbnail: null,
};

export const WALK: BodyOf<'move'> = {
  kind: 'walk',
  path: { closed: false, nodes: [] },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: LENS,
};
