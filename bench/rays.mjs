// Occlusion rays and floor lookups on the demo building against three-mesh-bvh.
import { triangleSoup } from '@eskovan/core/format';
import { RayTree, FloorIndex, walkableTriangles } from '@eskovan/core/survey';
import { readCommission } from '@eskovan/demo';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH, SAH } from 'three-mesh-bvh';
import { timed } from './lib/measure.mjs';

const RAYS = 60_000;

export async function benchRays() {
  const { soup } = triangleSoup(await readCommission());
  const ours = new RayTree(soup);
  const geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(soup.slice(), 3));
  const theirs = new MeshBVH(geometry, { strategy: SAH, maxLeafSize: 3, maxLeafTris: 3 });
  const rays = Array.from({ length: RAYS }, (_, i) => {
    const a = i * 2.4;
    const y = Math.sin(i * 1.7);
    const r = Math.sqrt(1 - y * y);
    return [1 + ((i * 0.37) % 22), 0.6 + ((i * 0.11) % 4), 1 + ((i * 0.23) % 10), r * Math.cos(a), y, r * Math.sin(a)];
  });
  const ray = new Ray(new Vector3(), new Vector3());
  const [ourTime, theirTime] = [
    timed(() => rays.forEach((q) => ours.hits(q[0], q[1], q[2], q[3], q[4], q[5], Infinity)), { runs: 7, warm: 3 }),
    timed(
      () =>
        rays.forEach((q) => {
          ray.origin.set(q[0], q[1], q[2]);
          ray.direction.set(q[3], q[4], q[5]);
          theirs.raycastFirst(ray, DoubleSide);
        }),
      { runs: 3, warm: 1 },
    ),
  ];
  const floor = new FloorIndex(walkableTriangles(soup));
  const down = new Vector3(0, -1, 0);
  const floorTime = timed(() => rays.forEach((q) => floor.floorBelow(q[0], q[2], 2.5)), { runs: 7, warm: 3 });
  const floorTheirs = timed(
    () =>
      rays.forEach((q) => {
        ray.origin.set(q[0], 2.5, q[2]);
        ray.direction.copy(down);
        theirs.raycastFirst(ray, DoubleSide);
      }),
    { runs: 3, warm: 1 },
  );
  const perSecond = (ms) => `${Math.round(RAYS / ms)} k/s`;
  return [
    {
      what: 'occlusion rays, one thread',
      ours: perSecond(ourTime),
      baseline: `${perSecond(theirTime)}, three-mesh-bvh raycastFirst`,
      ratio: `${(theirTime / ourTime).toFixed(1)} × as fast`,
      wanted: 'at least 5 ×',
      holds: ourTime * 5 <= theirTime,
    },
    {
      what: 'floor lookups',
      ours: perSecond(floorTime),
      baseline: `${perSecond(floorTheirs)}, three-mesh-bvh raycastFirst`,
      ratio: `${(floorTheirs / floorTime).toFixed(1)} × as fast`,
      wanted: 'faster',
      holds: floorTime < floorTheirs,
    },
  ];
}
