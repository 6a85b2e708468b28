import { describe, expect, test } from '@jest/globals';
import { SiteMotion, type SiteAction } from '@eskovan/core/action';
import { ALL_LIT, type SiteLight } from '@eskovan/core/document';
import { PLAIN_MATERIAL, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { bakeLight } from '@eskovan/core/survey';
import { BoxGeometry, DataUtils, Matrix4, type BufferAttribute, type Mesh } from 'three';
import { buildScene } from './build-scene.ts';
import { DimmedMeshes } from './dimmed.ts';
import type { FinishUniforms } from './finish.ts';
import { MovingMeshes } from './moving.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';
import { RelitMeshes } from './relit.ts';

const light: SiteLight = { sun: [0.6, 0.8, 0], sky: 'clear', lamps: ALL_LIT };
const named = (name: string, part: ScenePart): ScenePart => ({ ...part, model: 'm', name });

/** A yard with a wall to the west, and a post on it, in the middle of a cell that scenes are cut into. */
const yard = (moved = new Matrix4()): SceneModel => ({
  materials: [PLAIN_MATERIAL, { ...PLAIN_MATERIAL, color: [0.2, 0.1, 0.08] }],
  textures: [],
  parts: [
    named('Ground', partOf(new BoxGeometry(16, 0.4, 16).translate(4, -0.2, 4))),
    named('Wall', partOf(new BoxGeometry(0.3, 4, 6).translate(2.4, 2, 4), { material: 1 })),
    named('Post', partOf(new BoxGeometry(0.6, 1.2, 0.4).translate(0, 0.9, 0).applyMatrix4(moved).translate(4, 0, 4))),
  ],
});
const lit = bakeLight(yard(), light);
const turning = (lightTurns: boolean): SiteAction => ({
  kind: 'turntable',
  model: 'm',
  part: 'Post',
  turning: { sweep: -Math.PI, duration: 2, shape: 'constant' },
  lightTurns,
});
const half = (mesh: Mesh, name: string) =>
  [...((mesh.geometry.getAttribute(name) as BufferAttribute).array as Uint16Array)].map((n) =>
    DataUtils.fromHalfFloat(n),
  );

async function scene(model: SceneModel, action: SiteAction, finish?: FinishUniforms, dimmers: never[] = []) {
  const motion = new SiteMotion(model, [action]);
  const group = await buildScene(model, {
    look: 'natural',
    exposure: 0,
    light,
    motion,
    dimmers,
    ...(finish && { finish }),
  });
  const moving = new MovingMeshes(group, motion);
  const relit = new RelitMeshes(group, model, motion, light);
  const post = (group.children as Mesh[]).filter(({ userData }) => userData['group'] >= 0);
  const at = (time: number) => {
    moving.place(time);
    return relit.follow();
  };
  return { group, moving, relit, post, at };
}

/** Mean of the light on what moves, by where it faces now: the finished picture has it without the sun. */
const seen = (meshes: readonly Mesh[], name: string) => meshes.flatMap((mesh) => half(mesh, name));
const off = (one: number[], other: number[]) =>
  one.reduce((sum, value, i) => sum + Math.abs(value - other[i]!), 0) / other.reduce((sum, value) => sum + value, 0);

describe('a scene whose things are lit where they move to', () => {
  test('a first picture does not wait for it; the next one has it', async () => {
    const { moving, relit } = await scene(lit, turning(false));
    moving.place(2);
    expect(relit.follow(true)).toBe(false);
    expect(relit.follow()).toBe(true);
    moving.place(1);
    // What takes long was found out by then.
    expect(relit.follow(true)).toBe(true);
  });

  test.each([
    [2e-8, false],
    [2e-3, true],
  ])('a rounding is no movement: turned by %d', async (sweep, lightChanges) => {
    const turned: SiteAction = { ...turning(false), turning: { sweep, duration: 2, shape: 'constant' } } as SiteAction;
    const { at } = await scene(lit, turned);
    expect(at(2)).toBe(lightChanges);
  });

  test.each([
    ['color', undefined, 0.2],
    ['ambient', {} as FinishUniforms, 0.1],
  ])('is about what a scene of the turned and newly baked site is: %s', async (name, finish, most) => {
    const { post, at } = await scene(lit, turning(false), finish);
    const before = seen(post, name);
    expect(at(0)).toBe(false);
    expect(at(2)).toBe(true);
    const now = seen(post, name);
    // Half a turn: each vertex is where the one across was.
    const baked = bakeLight(yard(new Matrix4().makeRotationY(Math.PI)), light);
    const truth = seen((await scene(baked, turning(false), finish)).post, name);
    expect(now).toHaveLength(truth.length);
    expect(off(now, truth)).toBeLessThan(most);
    expect(off(before, truth)).toBeGreaterThan(2 * off(now, truth));
    // And back again it is exactly what it was.
    expect(at(0)).toBe(true);
    expect(seen(post, name)).toEqual(before);
    expect(at(0)).toBe(false);
  });

  test('in a very large site it keeps the light that it has: nobody waits for that', async () => {
    const { group } = await scene(lit, turning(false));
    const motion = new SiteMotion(lit, [turning(false)]);
    const large = { ...lit, parts: [...lit.parts, { ...lit.parts[0]!, indices: new Uint32Array(1_500_000) }] };
    const moving = new MovingMeshes(group, motion);
    moving.place(2);
    expect(new RelitMeshes(group, large, motion, light).follow()).toBe(false);
    expect(new RelitMeshes(group, lit, motion, light).follow()).toBe(true);
  });

  test('light that goes along stays as it was', async () => {
    const { post, at } = await scene(lit, turning(true));
    const before = seen(post, 'color');
    expect(at(1)).toBe(false);
    expect(seen(post, 'color')).toEqual(before);
    expect(post.every(({ userData }) => userData['held'] === true)).toBe(true);
  });

  test('what takes its light along casts its shade from where it rests', async () => {
    const { moving, post, at } = await scene(lit, turning(true));
    at(1);
    const turned = post[0]!.matrix.clone();
    expect(turned.equals(new Matrix4())).toBe(false);
    let inside: Matrix4 | null = null;
    moving.atRest(() => (inside = post[0]!.matrix.clone()));
    expect(inside!).toEqual(new Matrix4());
    expect(post[0]!.matrix).toEqual(turned);
  });

  test('lamps that dim are taken off of the light that it has there', async () => {
    const share = (part: ScenePart) => part.light!.ambient.map((value) => 0.5 * value);
    const shared = {
      ...lit,
      parts: lit.parts.map((part) => ({ ...part, light: { ...part.light!, shares: [share(part)] } })),
    };
    const dimmer = { model: 'm', name: 'Lamp', levelAt: (time: number) => (time > 1 ? 0.5 : 1) };
    const { group, post, at } = await scene(shared, turning(false), {} as FinishUniforms, [dimmer] as never[]);
    const dimmed = new DimmedMeshes(group, [dimmer]);
    dimmed.place(2, at(2));
    const [now] = [seen(post, 'ambient')];
    const whole = await scene(lit, turning(false), {} as FinishUniforms);
    whole.at(2);
    const rest = seen((await scene(lit, turning(false), {} as FinishUniforms)).post, 'ambient');
    seen(whole.post, 'ambient').forEach((value, i) => {
      if (i % 4 < 3) expect(now[i]!).toBeCloseTo(Math.max(0, value - 0.25 * rest[i]!), 2);
    });
  });
});
