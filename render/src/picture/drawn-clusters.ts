import { BufferAttribute, DynamicDrawUsage, type Mesh, type Vector3 } from 'three';
import type { ClusterLevels, Clusters } from '../scene/clusters.ts';
import type { Levels } from '../scene/stand-in.ts';

export type Level = keyof Levels<Clusters>;

/** Room is made for so many times more than a picture needs: the next one may need a little more. */
const SPARE = 1.5;

/** What of a mesh is drawn: the clusters that a picture shows, as one list of triangles. */
export class DrawnClusters {
  /** Clusters that are drawn, in their order. */
  private shown = new Uint32Array(0);
  private count = -1;
  private of: Clusters | null = null;
  /** Every triangle of a level. */
  private readonly whole = new Map<Clusters, BufferAttribute>();
  /** Those of the shown clusters. */
  private some: BufferAttribute | null = null;

  constructor(
    private readonly mesh: Mesh,
    private readonly levels: ClusterLevels,
  ) {}

  /** Draws all of it. */
  showAll(level: Level): void {
    this.drawWhole(this.levels.of(level));
    this.mesh.visible = true;
  }

  /**
   * Draws what is shown.
   * @param shows asked for each cluster, by its number
   * @param behind where what is seen through is looked at from: what is farther away is drawn before what is nearer
   */
  show(level: Level, shows: (cluster: number, clusters: Clusters) => boolean, behind: Vector3 | null): void {
    const clusters = this.levels.of(level);
    const all = clusters.cells.length;
    if (this.shown.length < all) this.shown = Uint32Array.from({ length: all }, (_, i) => this.shown[i] ?? 0);
    const { shown } = this;
    let same = this.of === clusters;
    let count = 0;
    for (let cluster = 0; cluster < all; cluster += 1) {
      if (!shows(cluster, clusters)) continue;
      same &&= shown[count] === cluster;
      shown[count] = cluster;
      count += 1;
    }
    this.mesh.visible = count > 0;
    if (!behind && same && count === this.count) return;
    if (!behind && count === all) {
      this.drawWhole(clusters);
      return;
    }
    this.of = clusters;
    this.count = count;
    if (behind) farthestFirst(shown.subarray(0, count), clusters, behind);
    this.drawSome(clusters);
  }

  private drawWhole(clusters: Clusters): void {
    this.of = clusters;
    this.count = -1;
    let index = this.whole.get(clusters);
    if (!index) this.whole.set(clusters, (index = new BufferAttribute(clusters.indices, 1)));
    const { geometry } = this.mesh;
    if (geometry.index !== index) geometry.setIndex(index);
    geometry.setDrawRange(0, Infinity);
  }

  private drawSome({ indices, starts }: Clusters): void {
    const { shown, count } = this;
    let needed = 0;
    for (let i = 0; i < count; i += 1) needed += starts[shown[i]! + 1]! - starts[shown[i]!]!;
    const { geometry } = this.mesh;
    if (needed === 0) {
      geometry.setDrawRange(0, 0);
      return;
    }
    if (!this.some || this.some.count < needed)
      this.some = new BufferAttribute(new Uint32Array(Math.min(indices.length, Math.ceil(SPARE * needed))), 1).setUsage(
        DynamicDrawUsage,
      );
    const to = this.some.array as Uint32Array;
    let at = 0;
    for (let i = 0; i < count;) {
      const first = shown[i]!;
      let last = first;
      // What lies side by side is copied at once.
      for (i += 1; i < count && shown[i] === last + 1; i += 1) last += 1;
      const run = indices.subarray(starts[first], starts[last + 1]);
      to.set(run, at);
      at += run.length;
    }
    this.some.clearUpdateRanges();
    this.some.addUpdateRange(0, at);
    this.some.needsUpdate = true;
    if (geometry.index !== this.some) geometry.setIndex(this.some);
    geometry.setDrawRange(0, at);
  }
}

/** Sorts clusters by how far their middles are from a point. */
function farthestFirst(shown: Uint32Array, { boxes }: Clusters, { x, y, z }: Vector3): void {
  const away = (cluster: number) => {
    const at = 6 * cluster;
    return Math.hypot(
      (boxes[at]! + boxes[at + 3]!) / 2 - x,
      (boxes[at + 1]! + boxes[at + 4]!) / 2 - y,
      (boxes[at + 2]! + boxes[at + 5]!) / 2 - z,
    );
  };
  shown.sort((a, b) => away(b) - away(a));
}
