import { exportNavMesh, importNavMesh, init, NavMeshQuery, type NavMesh } from '@recast-navigation/core';
import { generateTiledNavMesh } from '@recast-navigation/generators';
import type { Bounds, Vec3, Walker } from '../document/index.ts';
import { triangleSoup, type SceneModel } from '../format/index.ts';
import { TRIANGLE, type TriangleSoup } from '../geometry/index.ts';
import { isDoorLeaf } from './door-leaf.ts';
import type { Survey } from './survey.ts';
import { leaveOutRoofs, nearestShores, polygonsOf } from './walkway-islands.ts';

/** Largest side of a voxel in plan, and its height, metres. */
const CELL = 0.1;
const CELL_HEIGHT = 0.025;
/** Voxels a tile side. */
const TILE = 96;
/** Open ground counts up to this far around a house, metres. */
const SURROUNDINGS = 30;
/** A way ends so near to where it is to end, in plan and in height, metres. */
const NEAR = 0.6;

/** What of a survey says where one walks. */
export interface WalkedSurvey {
  bounds: Bounds;
  storeys: readonly Pick<Survey['storeys'][number], 'extent' | 'rooms'>[];
}

/** Triangles are handed to recast in chunks; more than 512 of them in a tile, and it leaves the rest out in silence. */
const MOST_CHUNKS = 200;
const CHUNK = 256;

/** Larger sites get larger voxels: at most about this many in plan. */
const MOST_CELLS = 1_500_000;

/**
 * Where a walker can get to: a navigation mesh (recast) over everything shown, for a walker of a given radius, height,
 * step and slope.
 */
export class Walkway {
  private constructor(private readonly mesh: NavMesh) {}

  /**
   * @param model placed: metres, y up
   * @param survey of the same model: says where its house is
   * @returns null where there is nothing to walk on
   */
  static build(model: SceneModel, survey: Survey, walker: Walker): Promise<Walkway | null> {
    return Walkway.over(triangleSoup(model, (part) => !isDoorLeaf(part)).soup, survey, walker);
  }

  /** The same over triangles: what there is but door leaves. @param survey of the same site */
  static async over(soup: TriangleSoup, survey: WalkedSurvey, walker: Walker): Promise<Walkway | null> {
    await init();
    const { min, max } = areaOf(survey);
    // A whole number of voxels to the walker's radius, where the site is not too large for that.
    const fine = walker.radius / Math.ceil(walker.radius / CELL);
    const cs = Math.max(fine, Math.sqrt(((max[0] - min[0]) * (max[2] - min[2])) / MOST_CELLS));
    const { success, navMesh } = generateTiledNavMesh(
      soup,
      Uint32Array.from({ length: soup.length / 3 }, (_, i) => i),
      {
        cs,
        ch: CELL_HEIGHT,
        tileSize: TILE,
        walkableSlopeAngle: walker.slope,
        walkableHeight: Math.ceil(walker.height / CELL_HEIGHT),
        walkableClimb: Math.round(walker.step / CELL_HEIGHT),
        // A door loses up to a voxel, wherever it stands on the grid: one less on each side keeps it open to those
        // who fit through, and shut to those who are wider than it by two voxels.
        walkableRadius: Math.max(1, Math.floor(walker.radius / cs + 1e-6) - 1),
        maxSimplificationError: 1,
        minRegionArea: 12,
        // Heights between corners are looked at every half metre, to 5 cm: floors are followed on the model itself.
        detailSampleDist: 6,
        detailSampleMaxError: 2,
        bounds: [min, max],
        chunkyTriMeshTrisPerChunk: Math.max(CHUNK, Math.ceil(soup.length / TRIANGLE / MOST_CHUNKS)),
      },
    );
    if (!success || !navMesh) return null;
    leaveOutRoofs(
      navMesh,
      survey.storeys.flatMap(({ rooms }) => rooms.map(({ at }) => at)),
    );
    return new Walkway(navMesh);
  }

  /** From what {@link bytes} gave. */
  static async from(bytes: Uint8Array): Promise<Walkway> {
    await init();
    return new Walkway(importNavMesh(bytes).navMesh);
  }

  /** Gives its memory back, which nobody collects; it is of no use any more. */
  free(): void {
    this.mesh.destroy();
  }

  bytes(): Uint8Array {
    return exportNavMesh(this.mesh);
  }

  /** Nine numbers a triangle, metres. */
  triangles(): Float32Array {
    return Float32Array.from(polygonsOf(this.mesh).flatMap(({ triangles }) => triangles));
  }

  /**
   * The shortest way between two places on the floor, as corners; null where there is none. Metres.
   * @param without places that it must not lead over
   */
  way(from: Vec3, to: Vec3, without: readonly Vec3[] = []): Vec3[] | null {
    const query = new NavMeshQuery(this.mesh);
    const closed = this.close(query, without);
    try {
      return this.shortest(query, from, to);
    } finally {
      for (const [ref, flags] of closed) this.mesh.setPolyFlags(ref, flags);
      query.destroy();
    }
  }

  /**
   * Where no way leads from one place to another: how near one comes from either side, metres; null where one of them is on
   * no floor, or where they are farther apart than that says anything.
   */
  shores(from: Vec3, to: Vec3): [Vec3, Vec3] | null {
    return nearestShores(this.mesh, from, to);
  }

  /** Takes the polygons at some places out. @returns what they were */
  private close(query: NavMeshQuery, places: readonly Vec3[]): Map<number, number> {
    const closed = new Map<number, number>();
    for (const [x, y, z] of places) {
      const { success, nearestRef } = query.findNearestPoly({ x, y, z }, { halfExtents: { x: 0.3, y: 2, z: 0.3 } });
      if (!success || nearestRef === 0) continue;
      closed.set(nearestRef, this.mesh.getPolyFlags(nearestRef).flags);
    }
    for (const ref of closed.keys()) this.mesh.setPolyFlags(ref, 0);
    return closed;
  }

  private shortest(query: NavMeshQuery, from: Vec3, to: Vec3): Vec3[] | null {
    const at = ([x, y, z]: Vec3) => ({ x, y, z });
    const { success, path } = query.computePath(at(from), at(to), {
      halfExtents: { x: 0.4, y: NEAR, z: 0.4 },
      maxPathPolys: 2048,
      maxStraightPathPoints: 2048,
    });
    const corners = path.map(({ x, y, z }): Vec3 => [x, y, z]);
    const last = corners.at(-1);
    // A path that ends early has met something in the way; one that ends on the floor below has not got there either.
    if (!success || !last || Math.hypot(last[0] - to[0], last[2] - to[2]) > NEAR || Math.abs(last[1] - to[1]) > NEAR)
      return null;
    return corners;
  }
}

/** The house with some ground around it; everything where there is no house. */
function areaOf({ bounds, storeys }: WalkedSurvey): Bounds {
  const inside = storeys.filter(({ rooms }) => rooms.length > 0);
  if (inside.length === 0) return bounds;
  const side = (k: 0 | 1 | 2 | 3, pick: (...values: number[]) => number) =>
    pick(...inside.map(({ extent }) => extent[k]));
  const { min, max } = bounds;
  return {
    min: [
      Math.max(min[0], side(0, Math.min) - SURROUNDINGS),
      min[1],
      Math.max(min[2], side(1, Math.min) - SURROUNDINGS),
    ],
    max: [
      Math.min(max[0], side(2, Math.max) + SURROUNDINGS),
      max[1],
      Math.min(max[2], side(3, Math.max) + SURROUNDINGS),
    ],
  };
}

/** The survey with the walkway drawn into its storeys, each triangle to the storey that it is nearest above. */
export function drawWalkway(survey: Survey, walkway: Walkway): Survey {
  const soup = walkway.triangles();
  const drawn = survey.storeys.map((): number[] => []);
  const tidy = (value: number) => Math.round(value * 100) / 100;
  for (let o = 0; o < soup.length; o += 9) {
    const height = Math.min(soup[o + 1]!, soup[o + 4]!, soup[o + 7]!);
    const below = survey.storeys.filter(({ elevation }) => elevation <= height + 0.35).length;
    drawn[Math.max(0, below - 1)]!.push(...[0, 2, 3, 5, 6, 8].map((k) => tidy(soup[o + k]!)));
  }
  return { ...survey, storeys: survey.storeys.map((storey, i) => ({ ...storey, walkway: drawn[i]! })) };
}
