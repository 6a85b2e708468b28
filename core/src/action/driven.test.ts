import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Matrix4 } from 'three';
import {
  AnimationClip,
  AnimationMixer,
  BoxGeometry,
  Group,
  Mesh,
  QuaternionKeyframeTrack,
  Vector3,
  Quaternion,
} from 'three';
import type { Vec3 } from '../document/index.ts';
import { minimumJerk } from '../geometry/index.ts';
import {
  hingeOf,
  ownActions,
  pickSite,
  placeActions,
  planBoxOfPart,
  SiteMotion,
  sweepOf,
  type SiteAction,
} from './index.ts';
import { glideOf, MODEL, orbitOf } from '../move/kinds.fixture.ts';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const box = (name: string, min: Vec3, max: Vec3) => ({ model: MODEL, name, bounds: { min, max } });
const leaf = box('Hall / Door leaf', [2, 0, 4], [2.9, 2.1, 4.05]);
const handle = box('Hall / Door leaf / Handle', [2.8, 1, 4.05], [2.85, 1.1, 4.12]);
const wall = box('Hall / Wall', [0, 0, 4], [2, 3, 4.2]);
const parts = [leaf, handle, wall];
const motionOf = (...actions: SiteAction[]) => new SiteMotion({ parts, joints: [], movements: [] }, actions);
const placeOf = (motion: SiteMotion, part: (typeof parts)[number], time: number): Matrix4 | null => {
  const group = motion.groupOf(part);
  if (group < 0) return null;
  const places = motion.places();
  motion.place(time, places);
  return places[group]!;
};
const run = { start: 1, seconds: 2, shape: 'ease both' as const, repeat: 'once' as const };
const door: SiteAction = { kind: 'hinge', model: MODEL, part: leaf.name, end: 'low', angle: 1.4, ...run };

describe('a part that opens', () => {
  test('turns about the upright edge that it hangs by, with what is on it, and nothing else does', () => {
    const motion = motionOf(door);
    for (const [time, part] of [
      [0, 0],
      [1, 0],
      [2, 0.5],
      [3, 1],
      [9, 1],
    ] as const) {
      const place = placeOf(motion, leaf, time)!;
      const hinge = new Vector3(2, 0.3, 4.025);
      expect(hinge.clone().applyMatrix4(place).distanceTo(hinge)).toBeLessThan(1e-12);
      const free = new Vector3(2.9, 0, 4.025).applyMatrix4(place).sub(new Vector3(2, 0, 4.025));
      // Counter-clockwise in the plan, where Z points down: from +X towards −Z.
      expect(Math.atan2(-free.z, free.x)).toBeCloseTo(1.4 * part, 9);
      expect(free.length()).toBeCloseTo(0.9, 9);
      expect(motion.groupOf(handle)).toBe(motion.groupOf(leaf));
      expect(placeOf(motion, wall, time)).toBeNull();
    }
  });

  test('hangs at either end of its longer side, whichever way it lies', () => {
    expect(hingeOf(planBoxOfPart(leaf), 'high').x).toBeCloseTo(2.9, 9);
    expect(
      hingeOf(planBoxOfPart({ name: 'Leaf', bounds: { min: [0, 0, 0], max: [0.05, 2, 1] } }), 'low').toArray(),
    ).toEqual([0.025, 1, 0]);
  });

  test('in a house that is turned it hangs at its own edge, not at that of the box about it', () => {
    for (const degrees of [12, 30, 45, 80, 140, 200, 300]) {
      const turned = new BoxGeometry(0.9, 2.1, 0.05)
        .translate(20, 1.05, 5)
        .rotateY((degrees * Math.PI) / 180)
        .getAttribute('position').array as Float32Array;
      const ends = [-0.45, 0.45].map((out) =>
        new Vector3(20 + out, 1.05, 5).applyAxisAngle(new Vector3(0, 1, 0), (degrees * Math.PI) / 180),
      );
      const box = planBoxOfPart({ name: 'Leaf', positions: turned });
      for (const end of ['low', 'high'] as const)
        expect(Math.min(...ends.map((edge) => edge.distanceTo(hingeOf(box, end))))).toBeLessThan(1e-4);
      expect(hingeOf(box, 'low').distanceTo(hingeOf(box, 'high'))).toBeCloseTo(0.9, 4);
    }
  });

  // Reference: the AnimationMixer of three.js with keys of the same turn.
  test('opens as three.js plays the same turn', () => {
    const mesh = new Mesh(new BoxGeometry());
    const pivot = new Group();
    pivot.name = 'pivot';
    pivot.position.set(2, 0, 4.025);
    pivot.add(mesh);
    mesh.position.set(0.45, 1.05, 0);
    const frames = Array.from({ length: 241 }, (_, i) => i / 120);
    const turns = frames.flatMap((time) =>
      new Quaternion().setFromAxisAngle(new Vector3(0, 1, 0), 1.4 * minimumJerk(time / 2)).toArray(),
    );
    const clip = new AnimationClip('open', 2, [new QuaternionKeyframeTrack('.quaternion', frames, turns)]);
    const mixer = new AnimationMixer(pivot);
    mixer.clipAction(clip).play();
    for (const time of [0.1, 0.7, 1.3, 1.9]) {
      mixer.setTime(time);
      pivot.updateMatrixWorld(true);
      const theirs = new Vector3(0.2, 0.4, 0.1).applyMatrix4(mesh.matrixWorld);
      const rest = new Vector3(0.2 + 2 + 0.45, 0.4 + 1.05, 0.1 + 4.025);
      const ours = rest.applyMatrix4(placeOf(motionOf(door), leaf, 1 + time)!);
      expect(ours.distanceTo(theirs)).toBeLessThan(1e-4);
    }
  });

  test('goes to and fro, and does nothing while it is off', () => {
    const motion = motionOf({ ...door, repeat: 'to and fro' });
    const at = (time: number) => placeOf(motion, leaf, time)!.elements[0]!;
    expect(at(3 + 0.4)).toBeCloseTo(at(3 - 0.4), 9);
    expect(at(5)).toBeCloseTo(1, 9);
    expect(
      placeActions([{ ...door, off: true } as never], [{ id: MODEL, body: { placement: PLACED, hidden: false } }]),
    ).toEqual([]);
    expect(placeActions([door as never], [{ id: MODEL, body: { placement: PLACED, hidden: false } }])).toHaveLength(1);
  });
});
const PLACED = { metresPerUnit: 1, up: 'y' as const, turn: 0, position: [0, 0, 0] as Vec3, from: 'declared' as const };

describe('a part that turns in a time of its own', () => {
  test('turns about its middle by so much, with its shape', () => {
    const motion = motionOf({
      kind: 'spin',
      model: MODEL,
      part: wall.name,
      axis: [0, 1, 0],
      rate: 9,
      start: 0.5,
      turn: { angle: Math.PI, seconds: 4, shape: 'ease both', repeat: 'once' },
    });
    const middle = new Vector3(1, 1.5, 4.1);
    for (const time of [0, 1.5, 2.5, 8]) {
      const place = placeOf(motion, wall, time)!;
      expect(middle.clone().applyMatrix4(place).distanceTo(middle)).toBeLessThan(1e-12);
      const done = minimumJerk(Math.min(1, Math.max(0, (time - 0.5) / 4)));
      const end = new Vector3(2, 1.5, 4.1).applyMatrix4(place).sub(middle);
      expect(end.angleTo(new Vector3(1, 0, 0))).toBeCloseTo(Math.PI * done, 6);
    }
  });
});

describe('a part that goes along a path', () => {
  const rail: Vec3[] = [
    [2.45, 1, 4],
    [2.45, 1, -6],
    [10, 3, -14],
  ];
  const along = (faces: boolean): SiteAction => {
    return {
      kind: 'along',
      model: MODEL,
      part: leaf.name,
      path: glideOf(rail).path,
      faces,
      ...run,
      start: 0,
      seconds: 10,
    };
  };

  test('begins where it rests, ends at the end of the path, and stays a rigid body', () => {
    fc.assert(
      fc.property(fc.boolean(), number(0, 12), (faces, time) => {
        const place = placeOf(motionOf(along(faces)), leaf, time)!;
        const [a, b] = [new Vector3(2, 0, 4), new Vector3(2.9, 2.1, 4.05)];
        const far = a.distanceTo(b);
        expect(a.applyMatrix4(place).distanceTo(b.applyMatrix4(place))).toBeCloseTo(far, 9);
      }),
    );
    const at = (time: number, faces: boolean) =>
      new Vector3(...rail[0]!).applyMatrix4(placeOf(motionOf(along(faces)), leaf, time)!);
    for (const faces of [true, false]) {
      expect(at(0, faces).distanceTo(new Vector3(...rail[0]!))).toBeLessThan(1e-9);
      expect(at(10, faces).distanceTo(new Vector3(...rail[2]!))).toBeLessThan(1e-6);
    }
  });

  test('turns with the way where it is to, and not at all where it is not', () => {
    const turnAt = (time: number, faces: boolean) =>
      new Quaternion().setFromRotationMatrix(placeOf(motionOf(along(faces)), leaf, time)!);
    expect(turnAt(9, false).angleTo(new Quaternion())).toBeLessThan(1e-9);
    // From north it comes to face about north-east.
    expect(turnAt(10, true).angleTo(new Quaternion())).toBeGreaterThan(0.5);
  });

  test('that leads nowhere does nothing', () => {
    const path = glideOf([
      [1, 0, 1],
      [1, 0, 1],
    ]).path;
    expect(placeOf(motionOf({ ...along(true), path } as SiteAction), leaf, 3)).toBeNull();
  });
});

describe('a part that appears', () => {
  const appear = (change: object = {}): SiteAction =>
    ({
      kind: 'appear',
      model: MODEL,
      part: 'Hall',
      how: 'grows',
      start: 1,
      seconds: 2,
      shape: 'constant',
      ...change,
    }) as SiteAction;
  const size = (motion: SiteMotion, part: (typeof parts)[number], time: number) =>
    placeOf(motion, part, time)!.elements[0]!;

  test('is nothing before, grows out of its own foot, and is itself after', () => {
    const motion = motionOf(appear());
    for (const [time, part] of [
      [0, 0],
      [1, 0],
      [2, 0.5],
      [3, 1],
      [9, 1],
    ] as const) {
      expect(size(motion, wall, time)).toBeCloseTo(part, 9);
      const foot = new Vector3(1, 0, 4.1);
      expect(
        foot
          .clone()
          .applyMatrix4(placeOf(motion, wall, time)!)
          .distanceTo(foot),
      ).toBeLessThan(1e-9);
    }
    expect(size(motionOf(appear({ goes: true })), wall, 2)).toBeCloseTo(0.5, 9);
    const once = motionOf(appear({ how: 'at once' }));
    expect([0.99, 1].map((time) => size(once, wall, time))).toEqual([0, 1]);
  });

  test('fades: as large as ever while anything of it is there, and there in part', () => {
    const motion = motionOf(appear({ how: 'fades' }));
    const presence = (of: SiteMotion, part: (typeof parts)[number], time: number) =>
      of.presences(time)?.[of.groupOf(part)] ?? null;
    expect([0.5, 1.5, 2, 2.5, 3].map((time) => size(motion, wall, time))).toEqual([0, 1, 1, 1, 1]);
    expect(presence(motion, wall, 2.5)).toBeCloseTo(0.75, 9);
    // Before and after there is nothing to mix.
    expect([0.5, 3, 9].map((time) => motion.presences(time))).toEqual([null, null, null]);
    expect(presence(motionOf(appear({ how: 'fades', goes: true })), wall, 2.5)).toBeCloseTo(0.25, 9);
    // What stays is there; two that fade as one are there as far as both of them are.
    const some = appear({ how: 'fades', part: leaf.name });
    expect(presence(motionOf(appear({ part: 'Hall' }), some), wall, 2)).toBe(1);
    expect(presence(motionOf(appear({ how: 'fades' }), some), leaf, 2)).toBeCloseTo(0.25, 9);
    expect(motionOf(appear()).presences(2)).toBeNull();
  });

  test('in order appears the lowest first, each in its share of the time', () => {
    const motion = motionOf(appear({ inOrder: true, part: 'Hall', seconds: 3 }));
    // The leaf and the wall stand on the floor, the handle is higher.
    expect(size(motion, leaf, 2)).toBeCloseTo(1, 9);
    expect(size(motion, handle, 2.9)).toBe(0);
    expect(size(motion, handle, 4)).toBe(1);
    expect(motion.count).toBe(3);
  });

  test('is not met while it is not there', () => {
    const mesh = {
      model: MODEL,
      name: 'Hall / Wall',
      material: 0,
      positions: Float32Array.of(-1, 0, 0, 1, 0, 0, 0, 2, 0),
      normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
      indices: Uint32Array.of(0, 1, 2),
    } as never;
    const motion = new SiteMotion({ parts: [mesh], joints: [], movements: [] }, [appear({ how: 'at once' })]);
    const hit = (time: number) => pickSite([mesh], motion, [0, 0.5, 3], [0, 0, -1], time);
    expect(hit(0)).toBeNull();
    expect(hit(2)).not.toBeNull();
  });
});

describe('a subject that turns before the camera', () => {
  const orbit = orbitOf({
    pivot: { kind: 'object', model: MODEL, name: leaf.name, whole: false, point: [2.45, 1.05, 4.025] },
    turns: 'subject',
    shape: 'ease both',
    sweep: 3,
  });

  test('turns the other way by as much as the camera would have gone round', () => {
    const motion = motionOf(...ownActions(orbit));
    const { at } = sweepOf(orbit);
    for (const time of [0, 1, 2.5, 4, 5, 7]) {
      const end = new Vector3(2.9, 1.05, 4.025)
        .applyMatrix4(placeOf(motion, leaf, time)!)
        .sub(new Vector3(2.45, 1.05, 4.025));
      const turned = Math.atan2(-end.z, end.x);
      expect(Math.cos(turned + at(Math.min(5, time)))).toBeCloseTo(1, 9);
    }
  });

  test('is nothing for an orbit whose camera goes round, or round a mere place', () => {
    expect(ownActions(orbitOf())).toEqual([]);
    expect(ownActions(orbitOf({ turns: 'subject' }))).toEqual([]);
    const whole = ownActions({ ...orbit, pivot: { ...orbit.pivot, whole: true } as never });
    expect(motionOf(...whole).groupOf(wall)).toBeGreaterThanOrEqual(0);
  });

  test('takes its light along, or leaves it standing: pictures are made otherwise', () => {
    const [along, stands] = [orbit, { ...orbit, lightStands: true as const }].map((one) =>
      motionOf(...ownActions(one)),
    );
    expect(along!.keepsLight(along!.groupOf(leaf))).toBe(true);
    expect(stands!.keepsLight(stands!.groupOf(leaf))).toBe(false);
    expect(along!.layout).not.toBe(stands!.layout);
    expect(along!.keepsLight(-1)).toBe(false);
  });
});
