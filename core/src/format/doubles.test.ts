import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, Group, Mesh, MeshStandardMaterial, PlaneGeometry } from 'three';
import { OBJExporter } from 'three/examples/jsm/exporters/OBJExporter.js';
import { countTriangles, readModel } from './index.ts';

const read = async (...meshes: Mesh[]) => {
  const group = new Group();
  meshes.forEach((mesh, i) => {
    mesh.name = `Part ${i + 1}`;
    mesh.updateMatrixWorld();
    group.add(mesh);
  });
  return readModel(new TextEncoder().encode(new OBJExporter().parse(group)), 'doubles.obj');
};
const mesh = (geometry: BoxGeometry | PlaneGeometry) => new Mesh(geometry, new MeshStandardMaterial());

// Outside check: files by three's exporter, counted by hand.
describe('faces that lie exactly on others', () => {
  test('are left out and counted, in a part of its own or within one', async () => {
    const model = await read(
      mesh(new BoxGeometry(1, 2, 3)),
      mesh(new PlaneGeometry(4, 4)),
      mesh(new BoxGeometry(1, 2, 3)),
    );
    expect(model.parts.map(({ name }) => name)).toEqual(['Part 1', 'Part 2']);
    expect(countTriangles(model)).toBe(14);
    expect(model.notes.join()).toMatch(/12 faces lie exactly on others and are left out \(46\.2 % of/);
    // The first of two faces stays, wherever the second one begins.
    const text = 'v 0 0 0\nv 1 0 0\nv 0 1 0\nv 0 0 1\no A\nf 1 2 3\nf 2 3 1\nf 1 2 4\n';
    const within = await readModel(new TextEncoder().encode(text), 'within.obj');
    expect(countTriangles(within)).toBe(2);
    expect(within.notes.join()).toContain('1 face lies exactly on others and is left out');
  });

  test('a face and its back are two, and what only touches stays', async () => {
    const text = 'v 0 0 0\nv 1 0 0\nv 0 1 0\no A\nf 1 2 3\nf 3 2 1\n';
    const model = await readModel(new TextEncoder().encode(text), 'back.obj');
    expect(countTriangles(model)).toBe(2);
    expect(model.notes.join()).not.toContain('exactly on others');
    const beside = await read(mesh(new BoxGeometry(1, 1, 1)), mesh(new BoxGeometry(1, 1, 1).translate(1, 0, 0)));
    expect(countTriangles(beside)).toBe(24);
  });
});
