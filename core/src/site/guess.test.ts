import { describe, expect, test } from '@jest/globals';
import { strToU8 } from 'fflate';
import { BoxGeometry, CircleGeometry, Group, Mesh, PlaneGeometry, TorusGeometry } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import { partOf } from '../format/geometry-part.fixture.ts';
import { hutGlb } from '../format/files.fixture.ts';
import { readModel } from '../format/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { trueModels } from './guess-models.fixture.ts';
import { guessModel, SURE } from './guess.ts';
import { measureShape, SILHOUETTE, silhouetteOf } from './shape.ts';

const NOTHING = { metresPerUnit: null, up: null };

/** Thirty rows of twenty, four metres apart, z up, turned. */
function rowsOnPlate(turn: number): Group {
  const group = new Group();
  group.add(new Mesh(new BoxGeometry(84, 124, 0.3).translate(40, 60, -0.15)));
  for (let n = 0; n < 600; n += 1)
    group.add(new Mesh(new BoxGeometry(2.6, 2.6, 3).translate(2 + 4 * (n % 20), 2 + 4 * Math.floor(n / 20), 1.5)));
  group.rotation.x = turn;
  return group;
}

describe('guessing unit and up-axis', () => {
  test('of eighty models of known truth the first guess holds for at least 72, and the rest show the truth', async () => {
    const models = trueModels(randomFrom(11));
    expect(models).toHaveLength(80);
    const wrong: string[] = [];
    const missed: string[] = [];
    let sureAndWrong = 0;
    for (const { what, fileName, text, metresPerUnit, up } of models) {
      const candidates = guessModel(measureShape(await readModel(strToU8(text), fileName)), NOTHING, fileName);
      const is = (one: { metresPerUnit: number; up: string }) => one.metresPerUnit === metresPerUnit && one.up === up;
      const [first] = candidates;
      if (is(first!)) continue;
      if (first!.share >= SURE) sureAndWrong += 1;
      wrong.push(`${what}: ${candidates.map((c) => `${c.metresPerUnit} ${c.up} ${c.share.toFixed(2)}`).join(', ')}`);
      if (!candidates.some(is)) missed.push(what);
    }
    expect({ wrong: wrong.length <= 8 ? [] : wrong, missed, sureAndWrong }).toEqual({
      wrong: [],
      missed: [],
      sureAndWrong: 0,
    });
  });

  test('rows of huts on a plate lie, whichever way the file turns them; how large they are is said for sure only where it is true', async () => {
    for (const [model, up] of [
      [rowsOnPlate(0), 'z'],
      [rowsOnPlate(-Math.PI / 2), 'y'],
    ] as const)
      for (const scale of [1, 100, 1000]) {
        model.scale.setScalar(scale);
        model.updateMatrixWorld(true);
        const read = await readModel(strToU8(new OBJExporter().parse(model)), 'model.obj');
        const [first] = guessModel(measureShape(read), NOTHING, 'model.obj');
        expect(first!.up).toBe(up);
        // Whoever is sure is right.
        if (first!.share >= SURE) expect(first!.metresPerUnit).toBeCloseTo(1 / scale, 6);
      }
  });

  test('a ring that lies is told; of one that stands, somebody is asked', async () => {
    const ring = async (turn: number) => {
      const mesh = new Mesh(new TorusGeometry(10, 2, 16, 64));
      mesh.rotation.x = turn;
      mesh.updateMatrixWorld(true);
      const bytes = strToU8(new STLExporter().parse(mesh));
      return guessModel(measureShape(await readModel(bytes, 'ring.stl')), NOTHING, 'ring.stl');
    };
    expect((await ring(0))[0]).toMatchObject({ metresPerUnit: 0.001, up: 'z' });
    const standing = await ring(Math.PI / 2);
    expect(standing[0]!.share).toBeLessThan(SURE);
    expect(standing.some(({ metresPerUnit, up }) => metresPerUnit === 0.001 && up === 'z')).toBe(true);
  });

  test('what a file declares is believed, unless the shape speaks loudly against it', async () => {
    const hut = measureShape(await readModel(await hutGlb(), 'hut.glb'));
    const declared = { metresPerUnit: 1, up: 'y' as const };
    expect(guessModel(hut, declared, 'hut.glb')[0]).toMatchObject({ ...declared, share: expect.any(Number) });
    const large = await readModel(await hutGlb(), 'hut.glb');
    for (const { positions } of large.parts) positions.forEach((value, k) => (positions[k] = 1000 * value));
    const [first] = guessModel(measureShape(large), declared, 'hut.glb');
    expect(first).toMatchObject({ metresPerUnit: 0.001, up: 'y' });
    expect(first!.why.length).toBeGreaterThan(0);
  });

  test('a sheet or a panel that a file says stands upright stands: a poster is no floor', () => {
    const declared = { metresPerUnit: 1, up: 'y' as const };
    for (const geometry of [
      new PlaneGeometry(1, 1),
      new PlaneGeometry(1.2, 0.8, 6, 4),
      new BoxGeometry(0.9, 1.4, 0.03),
      new CircleGeometry(0.4, 32),
      new BoxGeometry(4, 2.6, 0.1),
    ]) {
      const shape = measureShape({ parts: [partOf(geometry, { name: 'Mesh' })] });
      expect(guessModel(shape, declared, 'model.glb')[0]).toMatchObject(declared);
    }
  });

  test('a silhouette shows what there is, from the front', async () => {
    const rows = silhouetteOf(await readModel(await hutGlb(), 'hut.glb'), 'y');
    expect(rows).toHaveLength(SILHOUETTE);
    const filled = rows
      .join('')
      .split('')
      .reduce((sum, digit) => sum + parseInt(digit, 16).toString(2).replaceAll('0', '').length, 0);
    // 4.4 wide and 2.8 high: about 64 % of the square.
    expect(filled / SILHOUETTE ** 2).toBeGreaterThan(0.5);
    expect(filled / SILHOUETTE ** 2).toBeLessThan(0.7);
    expect(rows[0]).toBe('0000000000');
  });
});
