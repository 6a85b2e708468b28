import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, Mesh, SphereGeometry } from 'three';
import { mergeGeometries } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import { readModel, type ScenePart } from './index.ts';
import { mendWinding } from './winding.ts';

/** Six times the enclosed volume, by the divergence theorem. */
function volume({ positions: p, indices }: ScenePart): number {
  let sum = 0;
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * indices[t + k]!) as [number, number, number];
    sum +=
      p[a]! * (p[b + 1]! * p[c + 2]! - p[b + 2]! * p[c + 1]!) +
      p[a + 1]! * (p[b + 2]! * p[c]! - p[b]! * p[c + 2]!) +
      p[a + 2]! * (p[b]! * p[c + 1]! - p[b + 1]! * p[c]!);
  }
  return sum;
}

const part = async (geometry: BoxGeometry | SphereGeometry): Promise<ScenePart> =>
  (
    await readModel(
      new Uint8Array((new STLExporter().parse(new Mesh(geometry), { binary: true }) as DataView).buffer as ArrayBuffer),
      'a.stl',
    )
  ).parts[0]!;

function withTurned(from: ScenePart, which: (face: number) => boolean): ScenePart {
  const indices = from.indices.slice();
  for (let f = 0; f < indices.length / 3; f += 1)
    if (which(f)) [indices[3 * f + 1], indices[3 * f + 2]] = [indices[3 * f + 2]!, indices[3 * f + 1]!];
  return { ...from, indices };
}

// Outside check: bodies by three; their volumes by formula.
describe('winding', () => {
  test.each([
    ['as it should be', () => false],
    ['inside out', () => true],
    ['mixed', (f: number) => f % 3 === 0],
    ['mostly wrong', (f: number) => f % 5 !== 0],
  ] as [string, (face: number) => boolean][])('a box and a sphere that are %s face outward', async (_, which) => {
    const box = mendWinding(withTurned(await part(new BoxGeometry(2, 3, 4)), which));
    expect(volume(box) / 6).toBeCloseTo(24, 4);
    const ball = mendWinding(withTurned(await part(new SphereGeometry(1, 48, 32)), which));
    expect(Math.abs(volume(ball) / 6 / ((4 / 3) * Math.PI) - 1)).toBeLessThan(0.01);
    // Normals go with their faces.
    const { positions: p, normals: n } = ball;
    let outward = 0;
    for (let k = 0; k < p.length; k += 3)
      if (p[k]! * n[k]! + p[k + 1]! * n[k + 1]! + p[k + 2]! * n[k + 2]! > 0) outward += 1;
    expect(outward).toBe(p.length / 3);
  });

  test('bodies that touch along edges and faces are each turned outward, also where faces are mixed', async () => {
    const boxes = [
      new BoxGeometry(1, 1, 1),
      // Beside the first, over its edge, and a smaller one on top of it.
      new BoxGeometry(1, 1, 1).translate(1, 0, 0),
      new BoxGeometry(1, 1, 1).translate(-1, 1, 0),
      new BoxGeometry(0.5, 0.5, 0.5).translate(0.25, 0.75, 0),
    ];
    const whole = await part(mergeGeometries(boxes) as BoxGeometry);
    for (const share of [1, 2, 3])
      expect(volume(mendWinding(withTurned(whole, (f) => (f * 7) % 4 < share))) / 6).toBeCloseTo(3.125, 4);
    const left = volume(mendWinding(withTurned(whole, () => true))) / 6;
    expect(left).toBeCloseTo(3.125, 4);
  });

  test('what is right is handed back as it is', async () => {
    const box = await part(new BoxGeometry(1, 1, 1));
    expect(mendWinding(box)).toBe(box);
  });
});
