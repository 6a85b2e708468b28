// Rays and floor lookups on the demo building beside three-mesh-bvh: the same triangles, the same questions, as many runs.
import { triangleSoup } from '@eskovan/core/format';
import { RayTree, FloorIndex, walkableTriangles } from '@eskovan/core/survey';
import { readCommission } from '@eskovan/demo';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH, SAH } from 'three-mesh-bvh';
import { timed } from './lib/measure.mjs';

const RAYS = 60_000;
const RUNS = { runs: 5, warm: 2 };

const bvhOf = (soup) => {
  const geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(soup.slice(), 3));
  return new MeshBVH(geometry, { strategy: SAH, targetLeafSize: 3 });
};

export async function benchRays() {
  const { soup } = triangleSoup(await readCommission());
  const [ours, theirs] = [new RayTree(soup), bvhOf(soup)];
  const rays = Array.from({ length: RAYS }, (_, i) => {
    const a = i * 2.4;
    const y = Math.sin(i * 1.7);
    const r = Math.sqrt(1 - y * y);
    return [1 + ((i * 0.37) % 22), 0.6 + ((i * 0.11) % 4), 1 + ((i * 0.23) % 10), r * Math.cos(a), y, r * Math.sin(a)];
  });
  const [ray, point] = [new Ray(new Vector3(), new Vector3()), new Vector3()];
  const aim = (q) => {
    ray.origin.set(q[0], q[1], q[2]);
    ray.direction.set(q[3], q[4], q[5]);
  };
  const anything = {
    intersectsBounds: (box) => ray.intersectsBox(box),
    intersectsTriangle: ({ a, b, c }) => ray.intersectTriangle(a, b, c, false, point) !== null,
  };
  const hit = { triangle: -1, distance: 0, back: false };
  const walkable = walkableTriangles(soup);
  const [floor, floorTheirs] = [new FloorIndex(walkable), bvhOf(walkable)];
  const down = [0, -1, 0];
  const row = (what, mine, others, name) => {
    const [ourTime, theirTime] = [mine, others].map((ask) => timed(() => rays.forEach(ask), RUNS));
    const perSecond = (ms) => `${Math.round(RAYS / ms)} k/s`;
    return {
      what,
      ours: perSecond(ourTime),
      baseline: `${perSecond(theirTime)}, three-mesh-bvh ${name}`,
      ratio: `${(theirTime / ourTime).toFixed(1)} × as fast`,
      wanted: 'faster',
      holds: ourTime < theirTime,
    };
  };
  return [
    row(
      'rays that may meet anything, one thread',
      (q) => ours.hits(q[0], q[1], q[2], q[3], q[4], q[5], Infinity),
      (q) => {
        aim(q);
        theirs.shapecast(anything);
      },
      'shapecast',
    ),
    row(
      'rays to the closest surface, one thread',
      (q) => ours.closest(q[0], q[1], q[2], q[3], q[4], q[5], hit),
      (q) => {
        aim(q);
        theirs.raycastFirst(ray, DoubleSide);
      },
      'raycastFirst',
    ),
    row(
      'floor lookups',
      (q) => floor.floorBelow(q[0], q[2], 2.5),
      (q) => {
        aim([q[0], 2.5, q[2], ...down]);
        floorTheirs.raycastFirst(ray, DoubleSide);
      },
      'raycastFirst',
    ),
  ];
}
