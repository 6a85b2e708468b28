import type { ScenePart } from '@eskovan/core/format';
import { BufferAttribute, BufferGeometry, LineBasicMaterial, LineSegments } from 'three';
import { featureEdges, joinShapes } from './edges.ts';

/** Ochre of the interface: what is chosen. */
const CHOSEN = 0xe0a030;

const material = new LineBasicMaterial({
  color: CHOSEN,
  depthTest: false,
  transparent: true,
  opacity: 0.9,
  fog: false,
});

/** Lines around parts, seen through everything. */
export function makeMark(parts: readonly ScenePart[]): LineSegments {
  const geometry = new BufferGeometry().setAttribute(
    'position',
    new BufferAttribute(featureEdges(joinShapes(parts)), 3),
  );
  const segments = new LineSegments(geometry, material);
  segments.matrixAutoUpdate = false;
  segments.renderOrder = 2;
  segments.frustumCulled = false;
  return segments;
}
