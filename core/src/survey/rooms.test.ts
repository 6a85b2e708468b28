import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, PlaneGeometry } from 'three';
import type { SceneModel } from '../format/index.ts';
import { surveyModel } from './index.ts';
import { modelOf, soupOf } from './soup.fixture.ts';

const WALKER = { slope: 45 };
const join = (...soups: Float32Array[]) => Float32Array.from(soups.flatMap((soup) => [...soup]));
const box = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number) =>
  soupOf(new BoxGeometry(x1 - x0, y1 - y0, z1 - z0).translate((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2));

/** Outer walls 0.2 m thick about 10 m by 6 m of floor, a partition 0.1 m thick at x = 4 with a door 0.9 m wide. */
const house = (doorHead: number) =>
  join(
    box(-0.2, -0.2, -0.2, 10.2, 0, 6.2),
    box(-0.2, 2.7, -0.2, 10.2, 2.9, 6.2),
    box(-0.2, 0, -0.2, 10.2, 2.7, 0),
    box(-0.2, 0, 6, 10.2, 2.7, 6.2),
    box(-0.2, 0, 0, 0, 2.7, 6),
    box(10, 0, 0, 10.2, 2.7, 6),
    box(4, 0, 0, 4.1, 2.7, 2),
    box(4, 0, 2.9, 4.1, 2.7, 6),
    box(4, doorHead, 2, 4.1, 2.7, 2.9),
  );
const roomsOf = (model: SceneModel) =>
  surveyModel(model, WALKER).survey.storeys.find((s) => s.name === 'Ground')!.rooms;

describe('rooms', () => {
  test('are told apart at doors, with their areas to one part in a hundred', () => {
    const rooms = roomsOf(modelOf(house(2.1)));
    expect(rooms).toHaveLength(2);
    const [small, large] = [...rooms].sort((a, b) => a.area - b.area);
    expect(small!.area / (4 * 6)).toBeCloseTo(1, 2);
    expect(large!.area / (5.9 * 6)).toBeCloseTo(1, 2);
    expect(small!.at[0]).toBeGreaterThan(0.5);
    expect(small!.at[0]).toBeLessThan(3.5);
  });

  test('are one where the opening goes up to the ceiling', () => {
    expect(roomsOf(modelOf(house(2.7)))).toHaveLength(1);
  });

  test('furniture takes nothing from them, and the inside of walls is none', () => {
    const rooms = roomsOf(modelOf(join(house(2.1), box(6, 0, 1, 8, 0.75, 2), box(6, 0, 4, 6.6, 2, 5))));
    expect(rooms).toHaveLength(2);
    expect(Math.max(...rooms.map(({ area }) => area)) / (5.9 * 6)).toBeCloseTo(1, 2);
  });

  test('turned walls measure the same', () => {
    const turned = soupTurned(house(2.1), 0.5);
    const rooms = roomsOf(modelOf(turned));
    expect(rooms).toHaveLength(2);
    expect(Math.max(...rooms.map(({ area }) => area)) / (5.9 * 6)).toBeCloseTo(1, 2);
  });

  test('the file’s own rooms and storeys go first', () => {
    const model: SceneModel = {
      ...modelOf(house(2.1)),
      rooms: [{ name: 'Parlour', elevation: 0, area: 24, outline: [0, 0, 4, 0, 4, 6, 0, 6] }],
      storeys: [{ name: 'Piano nobile', elevation: 0.02 }],
    };
    const { survey } = surveyModel(model, WALKER);
    const storey = survey.storeys.find(({ name }) => name === 'Piano nobile')!;
    expect(storey.elevation).toBe(0.02);
    expect(storey.rooms).toMatchObject([{ name: 'Parlour', area: 24, at: [2, 0.02, 3] }]);
    expect(storey.rooms[0]!.places).toHaveLength(2 * 24);
  });
});

describe('landscape', () => {
  test('is drawn as a contour, not as a solid', () => {
    const hill = new PlaneGeometry(80, 80, 40, 40).rotateX(-Math.PI / 2);
    const position = hill.getAttribute('position');
    for (let i = 0; i < position.count; i += 1)
      position.setY(i, 4 * Math.exp(-((Math.hypot(position.getX(i), position.getZ(i)) / 20) ** 2)));
    const { storeys, contours } = surveyModel(modelOf(soupOf(hill)), WALKER).survey;
    expect(storeys[0]!.plan.cut).toEqual([]);
    expect(contours.length).toBeGreaterThan(3);
  });
});

function soupTurned(soup: Float32Array, angle: number): Float32Array {
  const out = soup.slice();
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (let k = 0; k < out.length; k += 3) {
    out[k] = soup[k]! * c + soup[k + 2]! * s;
    out[k + 2] = soup[k + 2]! * c - soup[k]! * s;
  }
  return out;
}
