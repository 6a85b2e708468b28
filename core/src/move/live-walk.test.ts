import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, gazeSchema, type Walk } from '../document/index.ts';
import { anglesOf } from '../geometry/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { Footing } from '../survey/index.ts';
import { CompiledWalk, reversedWalk, walkFromRecording, type LiveInstant } from './index.ts';

let serial = 0;
const newId = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;

/** Ten metres ahead at 1 m/s, three seconds of standing and looking to the left, ten metres to the right. Shaken. */
function recording(shake: number, slowed = 1, seed = 3): LiveInstant[] {
  const random = randomFrom(seed);
  const out: LiveInstant[] = [];
  for (let time = 0; time <= 23; time += 1 / 30 + random() / 200) {
    const [x, z] = time < 10 ? [0, -time] : time < 13 ? [0, -10] : [time - 13, -10];
    const pan = time < 10 ? 0 : time < 13 ? Math.sin(((time - 10) / 3) * Math.PI) : -Math.PI / 2;
    const off = () => (random() - 0.5) * 2 * shake;
    out.push({ time: time / slowed, x: x + off(), y: 0, z: z + off(), pan: pan + off(), tilt: off() });
  }
  return out;
}
const walkOf = ({ path, pauses, gaze, speed }: NonNullable<ReturnType<typeof walkFromRecording>>): Walk => ({
  kind: 'walk',
  path,
  eyeHeight: 1.6,
  pace: { by: 'speed', speed, duration: 10, shape: 'constant', pauses },
  gaze,
  lens: DEFAULT_LENS,
});
const made = (shake: number, slowed = 1, seed = 3) =>
  walkFromRecording(recording(shake, slowed, seed), slowed, newId, () => 0)!;

describe('a live walk', () => {
  test('becomes an ordinary one: its way within the shaking, its stay, its speed, its gaze', () => {
    const walk = made(0.02);
    expect(walk.pauses).toHaveLength(1);
    expect(walk.pauses[0]!.seconds).toBeCloseTo(3, 0);
    expect((walk.pauses[0]!.anchor as { station: number }).station).toBeCloseTo(10, 0);
    expect(walk.speed).toBeCloseTo(1, 1);
    expect(walk.path.nodes.length).toBeLessThan(30);
    const move = new CompiledWalk(walkOf(walk), new Footing(new Float32Array(0)));
    for (let station = 0; station < 9; station += 0.5) {
      const [x] = move.placeAt(station);
      expect(Math.abs(x)).toBeLessThan(0.05);
    }
    // Looking to the left while standing.
    const pan = (time: number) => anglesOf(move.sampleAt(time).orientation).pan;
    const stay = move.pace.pauses![0]!;
    expect(pan(5)).toBeCloseTo(0, 1);
    expect(Math.max(...Array.from({ length: 30 }, (_, i) => pan(stay.from + i / 10)))).toBeGreaterThan(0.8);
    expect(gazeSchema.safeParse(walk.gaze).success).toBe(true);
  });

  test('shaking is taken out: the camera shakes ten times less than the hand did', () => {
    const jitter = (positions: readonly number[]) =>
      Math.sqrt(
        positions.slice(2).reduce((sum, x, i) => sum + (x - 2 * positions[i + 1]! + positions[i]!) ** 2, 0) /
          positions.length,
      );
    const raw = recording(0.02).filter(({ time }) => time < 9);
    const move = new CompiledWalk(walkOf(made(0.02)), new Footing(new Float32Array(0)));
    const smooth = Array.from({ length: raw.length }, (_, i) => move.sampleAt(i / 30).position[0]);
    expect(jitter(smooth)).toBeLessThan(jitter(raw.map(({ x }) => x)) / 10);
  });

  test('recorded at half speed it is as fast as the whole, with stays as long as they were meant', () => {
    const [half, whole] = [made(0.01, 0.5), made(0.01)];
    expect(half.speed).toBeCloseTo(whole.speed, 1);
    expect(half.pauses[0]!.seconds).toBeCloseTo(3, 0);
    expect(half.seconds).toBeCloseTo(whole.seconds, 1);
  });

  test('reversed twice it is itself, and its last look comes first', () => {
    const walk = walkOf(made(0.01));
    const back = reversedWalk(walk);
    expect(back.gaze).toMatchObject({ kind: 'recorded' });
    if (back.gaze.kind === 'recorded') expect(back.gaze.looks[0]!.pan).toBeCloseTo(-Math.PI / 2, 1);
    const again = reversedWalk(back);
    if (again.gaze.kind === 'recorded' && walk.gaze.kind === 'recorded')
      again.gaze.looks.forEach(({ at }, i) =>
        expect(at).toBeCloseTo((walk.gaze as { looks: { at: number }[] }).looks[i]!.at, 9),
      );
  });

  test('who has not walked has no walk', () => {
    const still = recording(0).filter(({ time }) => time > 10.5 && time < 12.5);
    expect(walkFromRecording(still, 1, newId, () => 0)).toBeNull();
    expect(walkFromRecording([], 1, newId, () => 0)).toBeNull();
    expect(walkFromRecording(recording(0).slice(0, 1), 1, newId, () => 0)).toBeNull();
  });
});
