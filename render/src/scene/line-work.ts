import type { SiteMotion } from '@eskovan/core/action';
import { seesThrough, type SceneModel, type ScenePart } from '@eskovan/core/format';
import { BufferAttribute, BufferGeometry, LineBasicMaterial, LineSegments } from 'three';
import { cellSide, detailOf } from './chunks.ts';
import { featureEdges, joinShapes } from './edges.ts';
import { floats, type Growing } from './growing.ts';

/** Ink of the lines, display value. */
const INK = 0x26313c;

/** The lines of a site, merged by plan cell and detail as its surfaces are; what moves together is kept together. */
export function buildLineWork(model: SceneModel, motion?: SiteMotion): LineSegments[] {
  const groupOf = (part: ScenePart) => motion?.groupOf(part) ?? -1;
  const cells = new Map<string, { lines: Growing<Float32Array>; reach: number; group: number }>();
  const things = new Map<string, ScenePart[]>();
  for (const part of model.parts) {
    // Neither glass nor the sheet that a tree is cut out of has edges to draw.
    if (seesThrough(model.materials[part.material]!)) continue;
    const key = `${part.model}\n${part.name}\n${groupOf(part)}`;
    things.set(key, [...(things.get(key) ?? []), part]);
  }
  for (const pieces of things.values()) {
    const shape = joinShapes(pieces);
    const group = groupOf(pieces[0]!);
    const side = cellSide(shape.positions);
    const edges = featureEdges(shape);
    for (let o = 0; o < edges.length; o += 6) {
      const length = Math.hypot(
        edges[o + 3]! - edges[o]!,
        edges[o + 4]! - edges[o + 1]!,
        edges[o + 5]! - edges[o + 2]!,
      );
      const { detail, reach } = detailOf(length);
      const place = [0, 1, 2].map((k) => Math.floor(edges[o + k]! / side));
      const key = [group, detail, side, ...place].join('|');
      let cell = cells.get(key);
      if (!cell) cells.set(key, (cell = { lines: floats(), reach, group }));
      const at = cell.lines.take(6);
      for (let k = 0; k < 6; k += 1) cell.lines.array[at + k] = edges[o + k]!;
    }
  }
  const material = new LineBasicMaterial({ color: INK, transparent: true, opacity: 0.62, fog: true });
  return [...cells.values()].map(({ lines, reach, group }) => {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(lines.done(), 3));
    geometry.computeBoundingSphere();
    const segments = new LineSegments(geometry, material);
    segments.matrixAutoUpdate = false;
    segments.userData['reach'] = reach;
    segments.userData['group'] = group;
    return segments;
  });
}
