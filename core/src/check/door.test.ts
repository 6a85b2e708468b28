import { describe, expect, test } from '@jest/globals';
import { BoxGeometry } from 'three';
import { goneFrom, openFor, SiteMotion, type SiteAction } from '../action/index.ts';
import { FIRST_LIMITS, FIRST_WALKER, type Vec3 } from '../document/index.ts';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '../format/index.ts';
import { compileMove } from '../move/index.ts';
import { walkThrough } from '../move/floor-scenes.fixture.ts';
import { footingOf } from '../survey/index.ts';
import { checkMove } from './index.ts';

/** A wall across x with a door of 0.9 m in it, turned about the origin: the leaf is a part of its own. */
function house(angle: number) {
  const box = (name: string, [x, y, z]: Vec3, [w, h, d]: Vec3): ScenePart => {
    const geometry = new BoxGeometry(w, h, d).translate(x, y, z).rotateY(angle);
    return {
      name,
      model: 'a',
      material: 0,
      positions: Float32Array.from(geometry.getAttribute('position').array),
      normals: Float32Array.from(geometry.getAttribute('normal').array),
      uvs: null,
      light: null,
      indices: Uint32Array.from(geometry.index!.array),
    };
  };
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
  const move = compileMove(walkThrough([at(-6), at(6)]), {
    ...{ footing, walker: FIRST_WALKER, parts: [], motion: null, aspect: 16 / 9, limits: FIRST_LIMITS },
  })!;
  const check = (actions: readonly SiteAction[]) => {
    const gone = goneFrom(model.parts, new SiteMotion(model, actions));
    return checkMove(move, footing, FIRST_LIMITS, FIRST_WALKER, 16 / 9, gone);
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

describe.each([0, 0.5, Math.PI / 4, 2])('a walk through a door of a house turned by %s', (angle) => {
  const { check, opening } = house(angle);

  test('is stopped by its leaf, until it is opened in time', () => {
    expect(check([]).map(({ rule }) => rule)).toEqual(['closed door']);
    expect(check([opening()])).toEqual([]);
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
