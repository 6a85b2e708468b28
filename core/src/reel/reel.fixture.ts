import type { Rate, ShotBody } from '../document/index.ts';
import { compileMove } from '../move/index.ts';
import { glideOf, idOf, MODEL, poseOf, siteOf, travelOf } from '../move/kinds.fixture.ts';
import type { EditedShot } from './edit-shot.ts';
import { HOLDS, planReel, type ReelPlan, type ShotSource, type ShotToPlan } from './plan.ts';
import type { ShotCamera } from './shot-camera.ts';

/** Rates that films are made at. */
export const RATES: readonly Rate[] = [
  { num: 24_000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30_000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60_000, den: 1001 },
];

export const moveShot = (change: Partial<ShotBody> = {}, use: Partial<ShotBody['use']> = {}): ShotBody => ({
  reel: MODEL,
  ...change,
  use: { kind: 'move', move: idOf(1), from: 0, ...use } as ShotBody['use'],
});
export const viewShot = (change: Partial<ShotBody> = {}, use: Partial<ShotBody['use']> = {}): ShotBody => ({
  reel: MODEL,
  ...change,
  use: { kind: 'view', view: idOf(2), ...use } as ShotBody['use'],
});

export interface MadeShot extends ShotToPlan {
  body: ShotBody;
  source: ShotSource;
}

/** A reel of random shots: moves at their pace, stretched, backwards and going round, views that drift, cards; joined anyhow. */
export function randomReel(random: () => number, most = 12): MadeShot[] {
  const chance = (part: number) => random() < part;
  return Array.from({ length: 1 + Math.floor(random() * most) }, (_, i): MadeShot => {
    const join = chance(0.5)
      ? { kind: (['blend', 'dissolve', 'dip'] as const)[Math.floor(random() * 3)]!, seconds: 0.1 + random() * 3 }
      : undefined;
    const seconds = chance(0.4) ? 0.3 + random() * 9 : undefined;
    const shared = {
      ...(join && { join }),
      ...(seconds !== undefined && { seconds }),
      ...(chance(0.1) && { keeps: true as const }),
    };
    const id = idOf(100 + i);
    if (chance(0.25))
      return {
        id,
        body: viewShot(shared, chance(0.5) ? { drift: { way: 'in', distance: random() } } : {}),
        source: HOLDS,
      };
    const duration = 0.5 + random() * 12;
    const from = chance(0.5) ? 0 : random() * duration * 0.5;
    const to = chance(0.5) ? {} : { to: from + 0.2 + random() * (duration - from) };
    const use = { from, ...to, ...(chance(0.2) && { backwards: true as const }) };
    return { id, body: moveShot(shared, use), source: { duration, loops: chance(0.2) } };
  });
}

export const planOf = (shots: readonly MadeShot[], rate: Rate): ReelPlan =>
  planReel(shots, rate, ({ id }) => shots.find((shot) => shot.id === id)!.source);

export const editedOf = (shots: readonly MadeShot[], plan: ReelPlan, index: number): EditedShot => ({
  body: shots[index]!.body,
  planned: plan.shots[index]!,
});

/** A camera that goes straight and pans a little. */
export function straightMove(speed = 1, seconds = 8, at: readonly [number, number, number] = [0, 1.6, 0]): ShotCamera {
  const [x, y, z] = at;
  const body = travelOf(
    [poseOf(1, 0, [x, y, z], [0, 0, 0]), poseOf(2, seconds, [x, y, z - speed * seconds], [0.2, 0, 0])],
    { ends: 'running' },
  );
  return { kind: 'move', move: compileMove(body, siteOf())! };
}

/** A camera on a bend, looking ahead. */
export const bentMove = (): ShotCamera => ({
  kind: 'move',
  move: compileMove(
    glideOf([
      [0, 1.6, 0],
      [3, 1.6, -2],
      [4, 2, -6],
      [9, 1.6, -8],
    ]),
    siteOf(),
  )!,
});
