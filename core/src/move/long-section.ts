import type { Vec3 } from '../document/index.ts';
import type { PlanCurve } from '../path/index.ts';
import { SURFACE, type Footing } from '../survey/index.ts';
import type { SectionCut, TightPlace } from '../track/index.ts';
import { CRAWL } from './floor-line.ts';
import { tableAt, type UniformTable } from './uniform-table.ts';

/** A section is cut at stations so far apart, metres; of a longer way at so many at most. */
const SPACING = 0.08;
const MOST_CUTS = 4000;

/** What stands no farther beside the path than this is drawn behind the cut, metres. */
export const BESIDE = 0.5;

/** A line between two treads is no farther from either than this, metres. */
const STEPPED = 0.3;

/** What leaves less than this overhead is in the way, not overhead, metres. */
const overhead = (room: number) => (room < CRAWL ? NaN : room);

/** What is lower beside is stepped past, metres. */
const KNEE_LEVEL = 0.4;

/** Heights over the floor at which one looks aside, metres: a beam over the heads is overhead, not beside. */
const LEVELS = [0.1, 0.4, 0.7, 1, 1.3, 1.6, 1.85];
/** What is as tall as a person is drawn up to this height, metres. */
const TALL = 2.2;

/** A ceiling without a floor above it is drawn so thick; nothing is drawn thicker than the most. Metres. */
const THIN = 0.15;
const THICK = 1.2;

interface CutWay {
  curve: PlanCurve;
  footing: Footing;
  floor: UniformTable;
  /** When a station is passed, seconds. */
  timeAt(station: number): number;
}

/**
 * The long section of a walk, as architects draw it: what is overhead where the way is cut, and what stands close beside
 * it. Worked out once, when it is first drawn.
 */
export class LongSection {
  readonly tightest: readonly TightPlace[];
  private readonly spacing: number;
  private readonly floor: Float64Array;
  private readonly ceiling: Float64Array;
  private readonly top: Float64Array;
  private readonly beside: Float64Array;
  private readonly free: Float64Array;

  constructor({ curve, footing, floor, timeAt }: CutWay) {
    const count = Math.max(2, Math.min(MOST_CUTS, Math.ceil(curve.length / SPACING) + 1));
    this.spacing = curve.length / (count - 1);
    const none = () => new Float64Array(count).fill(NaN);
    this.floor = none();
    [this.ceiling, this.top, this.beside, this.free] = [none(), none(), none(), none()];
    const point = new Float64Array(2);
    const way = new Float64Array(2);
    for (let i = 0; i < count; i += 1) {
      curve.pointAt(i * this.spacing, point);
      curve.directionAt(i * this.spacing, way);
      this.cut(i, footing, [point[0]!, tableAt(floor, i * this.spacing), point[1]!], [way[0]!, way[1]!]);
    }
    this.tightest = [
      this.narrowest('overhead', (i) => overhead(this.ceiling[i]! - this.floor[i]!), timeAt),
      this.narrowest('beside', (i) => this.free[i]!, timeAt),
    ].filter((place) => place !== null);
  }

  private cut(i: number, footing: Footing, [x, line, z]: Vec3, way: readonly [number, number]): void {
    // On a stair the line between two places is on neither tread.
    const near = footing.surfaceNear(x, z, line);
    const floor = near !== null && Math.abs(near - line) < STEPPED ? near : line;
    this.floor[i] = floor;
    const ceiling = floor + footing.headroom(x, z, floor);
    if (Number.isFinite(ceiling)) {
      this.ceiling[i] = ceiling;
      const above = footing.floors.nextAbove(x, z, ceiling);
      this.top[i] = above - ceiling <= THICK ? above : ceiling + THIN;
    }
    for (const side of [1, -1]) this.lookAside(i, footing, [x, floor, z], [-way[1] * side, way[0] * side]);
  }

  /** Level lines to one side, from low to high: what is hit by the highest ends before the next. */
  private lookAside(i: number, footing: Footing, [x, floor, z]: Vec3, aside: readonly [number, number]): void {
    const { triangles } = footing.solids;
    LEVELS.forEach((level, k) => {
      const y = floor + level;
      if (y > this.ceiling[i]!) return;
      const to: Vec3 = [x + BESIDE * aside[0], y, z + BESIDE * aside[1]];
      const hit = footing.solids
        .between([x, y, z], to)
        .find(({ triangle }) => footing.kindOf(triangle) !== SURFACE.door);
      if (!hit) return;
      const o = 9 * hit.triangle;
      const highest = Math.max(triangles[o + 1]!, triangles[o + 4]!, triangles[o + 7]!);
      const height = Math.min(highest, floor + (LEVELS[k + 1] ?? TALL));
      if (!(this.beside[i]! >= height)) this.beside[i] = height;
      if (level < KNEE_LEVEL) return;
      if (!(this.free[i]! <= hit.at * BESIDE)) this.free[i] = hit.at * BESIDE;
    });
  }

  private narrowest(
    kind: TightPlace['kind'],
    at: (i: number) => number,
    timeAt: (station: number) => number,
  ): TightPlace | null {
    let best = -1;
    for (let i = 0; i < this.ceiling.length; i += 1)
      if (!Number.isNaN(at(i)) && (best < 0 || at(i) < at(best) - 1e-3)) best = i;
    return best < 0 ? null : { kind, time: timeAt(best * this.spacing), value: at(best) };
  }

  /** What is cut at a station; the cut nearest to it. */
  at(station: number): SectionCut {
    const i = Math.max(0, Math.min(this.ceiling.length - 1, Math.round(station / this.spacing)));
    return { ceiling: this.ceiling[i]!, top: this.top[i]!, beside: this.beside[i]!, free: this.free[i]! };
  }
}
