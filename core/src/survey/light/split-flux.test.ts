import { expect, test } from '@jest/globals';
import { PlaneGeometry } from 'three';
import { PLAIN_MATERIAL, type ScenePart } from '../../format/index.ts';
import { partOf } from '../../format/part.fixture.ts';
import { cornerArea } from '../../geometry/index.ts';
import { bakeLight } from './bake.ts';
import { daylight } from './daylight.ts';
import { clearSky } from './site-light.ts';

/** A room, metres, whose surfaces send back half of their light, with an opening in one wall and the sky before it. */
const ROOM = { width: 5, height: 3, depth: 6, back: 0.5 } as const;
const WINDOW = { width: 2.4, height: 1.4, sill: 0.9 } as const;
/** Deep night: there is a sky, and no sun. */
const NIGHT = clearSky([0, -1, 0]);

const sheet = (w: number, h: number, move: (plane: PlaneGeometry) => PlaneGeometry): ScenePart => {
  return partOf(move(new PlaneGeometry(w, h, Math.ceil(w / 0.4), Math.ceil(h / 0.4))));
};

function room(): ScenePart[] {
  const { width: w, height: h, depth: d } = ROOM;
  // A piece of the wall with the opening: its plane faces the room, towards −z.
  const front = (x0: number, x1: number, y0: number, y1: number) =>
    sheet(x1 - x0, y1 - y0, (plane) => plane.rotateY(Math.PI).translate((x0 + x1) / 2, (y0 + y1) / 2, d / 2));
  const [left, right, top] = [-WINDOW.width / 2, WINDOW.width / 2, WINDOW.sill + WINDOW.height];
  return [
    sheet(w, d, (plane) => plane.rotateX(-Math.PI / 2)),
    sheet(w, d, (plane) => plane.rotateX(Math.PI / 2).translate(0, h, 0)),
    sheet(w, h, (plane) => plane.translate(0, h / 2, -d / 2)),
    sheet(d, h, (plane) => plane.rotateY(Math.PI / 2).translate(-w / 2, h / 2, 0)),
    sheet(d, h, (plane) => plane.rotateY(-Math.PI / 2).translate(w / 2, h / 2, 0)),
    front(-w / 2, left, 0, h),
    front(right, w / 2, 0, h),
    front(left, right, 0, WINDOW.sill),
    front(left, right, top, h),
  ];
}

/** Light on an upright plane before this sky and ground, as a white surface would send it out: a sum over directions. */
function uprightLight(): number {
  const { zenith, horizon, ground } = daylight(NIGHT);
  let [sum, whole] = [0, 0];
  const steps = 400;
  for (let i = 0; i < steps; i += 1)
    for (let j = 0; j < steps; j += 1) {
      // Even over the hemisphere by cosine (Malley): the plane faces +z.
      const [r, a] = [Math.sqrt((i + 0.5) / steps), ((j + 0.5) / steps) * 2 * Math.PI];
      const dy = r * Math.sin(a);
      sum += dy < 0 ? ground[1] : horizon[1] + (zenith[1] - horizon[1]) * dy ** 0.6;
      whole += 1;
    }
  return sum / whole;
}

test('the light of a room with one window is what the split-flux method says', () => {
  const material = { ...PLAIN_MATERIAL, color: [ROOM.back, ROOM.back, ROOM.back] as [number, number, number] };
  const lit = bakeLight({ parts: room(), materials: [{ ...material, doubleSided: false }], textures: [] }, NIGHT);
  let [light, area] = [0, 0];
  for (const { positions: p, indices, light: own } of lit.parts)
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [indices[t]!, indices[t + 1]!, indices[t + 2]!];
      const share = cornerArea(p, 3 * a, 3 * b, 3 * c);
      area += share;
      light += (share * [a, b, c].reduce((sum, v) => sum + own!.ambient[3 * v + 1]!, 0)) / 3;
    }
  const opening = WINDOW.width * WINDOW.height;
  const { width: w, height: h, depth: d } = ROOM;
  expect(area).toBeCloseTo(2 * (w * d + w * h + d * h) - opening, 3);
  // What comes in, spread over all surfaces and sent on again and again; the opening sends nothing back.
  // Source, from memory: Hopkinson, Petherbridge & Longmore, Daylighting (1966), after Sumpner: E = Φ / (A (1 − R)).
  const back = (ROOM.back * area) / (area + opening);
  const wanted = (uprightLight() * opening) / ((area + opening) * (1 - back));
  // Difference found: 3.7 % more (the method takes all surfaces for equally lit; those before the window get more).
  expect(Math.abs(light / area / wanted - 1)).toBeLessThan(0.06);
});
