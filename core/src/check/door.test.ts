import { describe, expect, test } from '@jest/globals';
import { BoxGeometry } from 'three';
import { Movers, openFor, SiteMotion, type SiteAction } from '../action/index.ts';
import { FIRST_LIMITS, FIRST_WALKER, type Vec3 } from '../document/index.ts';
import { partOf } from '../format/geometry-part.fixture.ts';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '../format/index.ts';
import { compileMove } from '../move/index.ts';
import { walkThrough } from '../move/floor-scenes.fixture.ts';
import { footingOf } from '../survey/index.ts';
import { checkMove } from './index.ts';

/** A wall across x with a door of 0.9 m in it, turned about the origin: the leaf is a part of its own. */
function house(angle: number) {
  const box = (name: string, at: Vec3, size: Vec3): ScenePart =>
    partOf(new BoxGeometry(...size).translate(...at).rotateY(angle), { name, model: 'a' });
  const leaf = box('Door', [0, 1.05, 0], [0.9, 2.1, 0.05]);
  const model: SceneModel = {
    parts: [
      box('Floor', [0, -0.1, 0], [20, 0.2, 20]),
      box('Wall left', [-2.45, 1.3, 0], [4, 2.6, 0.2]),
      box('Wall right', [2.45, 1.3, 0], [4, 2.6, 0.2]),
      leaf,
    ],
    materials: [PLAIN_MATERIAL],
    textures: [],
  };
  const footing = footingOf(model, FIRST_WALKER);
  const at = (z: number) => [z * Math.sin(angle), 0, z * Math.cos(angle)] as const;
  const target: Vec3 = [at(8)[0], 1.2, at(8)[2]];
  const walk = { ...walkThrough([at(-6), at(6)]), gaze: { kind: 'point' as const, point: target } };
  const move = compileMove(walk, {
    ...{ footing, walker: FIRST_WALKER, parts: [], motion: null, aspect: 16 / 9, limits: FIRST_LIMITS },
  })!;
  const check = (actions: readonly SiteAction[]) => {
    const movers = new Movers(model.parts, new SiteMotion(model, actions));
    return checkMove(move, footing, FIRST_LIMITS, FIRST_WALKER, 16 / 9, movers);
  };
  const opening = () => {
    const [met] = check([]);
    const way = [Math.sin(angle), Math.cos(angle)] as const;
    return openFor({ ...leaf, model: 'a' }, { time: met!.from, way, at: met!.point! }, (from, direction, most) => {
      return footing.solids.first(from, direction, most)?.distance ?? most;
    });
  };
  return { check, opening };
}

describe.each([0, 0.5, 2])('a walk through a door of a house turned by %s', (angle) => {
  const { check, opening } = house(angle);

  test('is stopped by its leaf, until it is opened in time', () => {
    // What is behind it is hidden by it, until one is through.
    expect(check([]).map(({ rule }) => rule)).toEqual(['closed door', 'hidden']);
    const opened = check([opening()]);
    expect(opened.map(({ rule }) => rule)).toEqual(['hidden']);
    const { start, seconds } = opening();
    expect(opened[0]!.to).toBeGreaterThan(start);
    expect(opened[0]!.to).toBeLessThan(start + seconds);
  });

  test('is stopped where it opens too late, or does nothing', () => {
    const { start, ...others } = opening();
    expect(check([{ ...others, start: start + 3 }]).map(({ rule }) => rule)).toContain('closed door');
    expect(check([{ ...others, start: start + 3, angle: 0.01 }]).map(({ rule }) => rule)).toContain('closed door');
  });

  test('what is beside the leaf is in the way whatever it does', () => {
    const tall = { ...opening(), part: 'Wall left' };
    expect(check([tall]).map(({ rule }) => rule)).toContain('closed door');
  });
});

describe('something that goes across the way', () => {
  const carts = (size: number) => {
    const geometry = new BoxGeometry(size, size, size).translate(-6, size / 2, 0);
    const floor = new BoxGeometry(40, 0.2, 40).translate(0, -0.1, 0);
    const part = (name: string, made: BoxGeometry) => partOf(made, { name, model: 'a' });
    return { parts: [part('Floor', floor), part('Cart', geometry)], materials: [PLAIN_MATERIAL], textures: [] };
  };
  const walk = compileMove(
    walkThrough([
      [0, 0, -8],
      [0, 0, 8],
    ]),
    {
      ...{ walker: FIRST_WALKER, parts: [], motion: null, aspect: 16 / 9, limits: FIRST_LIMITS },
      footing: footingOf(carts(1), FIRST_WALKER),
    },
  )!;
  const metAt = (start: number, size = 1) => {
    const model = carts(size);
    // From x = −6 to 6 in 6 s: over the way from 2.75 s on, for half a second.
    const node = (x: number, i: number) => ({ id: String(i), x, y: 0, z: 0, kind: 'corner', radius: 0 }) as const;
    const across: SiteAction = {
      ...{
        kind: 'along',
        model: 'a',
        part: 'Cart',
        start,
        faces: false,
        seconds: 6,
        shape: 'constant',
        repeat: 'once',
      },
      path: { nodes: [node(-6, 0), node(6, 1)], closed: false },
    };
    const movers = new Movers(model.parts, new SiteMotion(model, [across]));
    const footing = footingOf(model, FIRST_WALKER);
    return checkMove(walk, footing, FIRST_LIMITS, FIRST_WALKER, 16 / 9, movers).filter(({ rule }) => rule === 'met');
  };

  test('is met when both are there at once, against the time worked out by hand, and not sooner or later', () => {
    // Who walks is at z = 0 half-way; the cart is half a metre to either side of it.
    const half = walk.duration / 2;
    for (let late = -2; late <= 2; late += 0.25) {
      const found = metAt(half - 3 + late);
      // Each goes at about 1 and 2 m/s: they miss each other by more than what a body of no width and a cart of 1 m need.
      if (Math.abs(late) < 0.6) expect(found).toHaveLength(1);
      if (Math.abs(late) > 0.9) expect(found).toEqual([]);
      for (const { from } of found) expect(Math.abs(from - half)).toBeLessThan(1.2);
    }
  });

  test('is stepped over where it is no higher than a knee', () => {
    expect(metAt(walk.duration / 2 - 3, 0.3)).toEqual([]);
    expect(metAt(walk.duration / 2 - 3, 0.6)).toHaveLength(1);
  });
});
