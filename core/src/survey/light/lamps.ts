import type { SceneMaterial, SceneModel, ScenePart } from '../../format/index.ts';
import { cornerNormal } from '../../geometry/index.ts';

/** A small source of light. */
export interface Lamp {
  position: [number, number, number];
  /** Linear colour times strength. */
  color: [number, number, number];
}

/** Glowing faces nearer than this belong to one lamp, metres; lamps in neighbouring cells to one fixture. */
const CLUSTER = 0.4;
/** Strength that makes a glowing bulb, however small it was modelled, light its table as a lamp does… */
const BULB = 1.1;
/** …and a strip as one bulb on so many metres. */
const STRIP = 1.5;
/** A surface brighter than so many times white is taken for that: files mean many things by their numbers. */
const BRIGHTEST = 4;
/** What glows less is not meant to light anything. */
const LEAST_GLOW = 0.05;
/** More lamps than this are put together with their neighbours: a façade of lit windows must not stop the bake. */
const MOST_LAMPS = 128;

/** What glows over more than this is no lamp but a shining surface, whose light is found where rays meet it, m². */
const SHINING = 1.5;

/** What gives off light in a model. */
export interface Glow {
  lamps: Lamp[];
  /** Is a glowing face with this middle part of a shining surface? It is no lamp then. */
  isSurface: (x: number, y: number, z: number) => boolean;
}

/** What a face of a material gives off as a shining surface: files mean many things by their numbers. */
export function emissionOf({ emissive }: Pick<SceneMaterial, 'emissive'>): [number, number, number] {
  const scale = Math.min(1, BRIGHTEST / Math.max(...emissive, 1e-9));
  return [emissive[0] * scale, emissive[1] * scale, emissive[2] * scale];
}

interface Cluster {
  cell: [number, number, number];
  /** Sums over all its faces, by area, also those that are off: what a fixture is does not depend on switches. */
  area: number;
  moment: [number, number, number];
  /** Sums over the faces that are lit, by area. */
  lit: { area: number; moment: [number, number, number]; glow: [number, number, number] };
}

const keyOf = (cell: readonly number[]) => cell.join(',');

/**
 * Finds what gives off light. What lamps give depends on the fixture that they are of, whatever else of it is lit: their
 * lights add up.
 */
export function findGlow(model: SceneModel, isLit: (part: ScenePart) => boolean = () => true): Glow {
  let size = CLUSTER;
  const fixtures = fixturesOf(clustersOf(model, size, isLit));
  const shines = (fixture: readonly Cluster[]) => fixture.reduce((sum, { area }) => sum + area, 0) >= SHINING;
  const surfaces = new Set(fixtures.filter(shines).flatMap((fixture) => fixture.map(({ cell }) => keyOf(cell))));
  let lamps = fixtures.filter((fixture) => !shines(fixture)).flatMap(lampsOf);
  while (lamps.length > MOST_LAMPS) {
    size *= 2;
    lamps = joined(lamps, size);
  }
  return { lamps, isSurface: (...at) => surfaces.has(keyOf(at.map((value) => Math.round(value / CLUSTER)))) };
}

/** The glowing faces of a model by cells of space. */
function clustersOf(model: SceneModel, size: number, isLit: (part: ScenePart) => boolean): Map<string, Cluster> {
  const clusters = new Map<string, Cluster>();
  const normal = new Float64Array(3);
  for (const part of model.parts) {
    const { material, positions: p, indices } = part;
    const lights = isLit(part);
    const { emissive } = model.materials[material]!;
    const most = Math.max(...emissive);
    if (most < LEAST_GLOW) continue;
    const scale = Math.min(1, BRIGHTEST / most);
    for (let t = 0; t < indices.length; t += 3) {
      const corners = [indices[t]! * 3, indices[t + 1]! * 3, indices[t + 2]! * 3] as const;
      cornerNormal(p, ...corners, normal);
      const area = Math.hypot(...normal) / 2;
      const at = [0, 1, 2].map((k) => corners.reduce((sum, o) => sum + p[o + k]!, 0) / 3);
      const cell = at.map((value) => Math.round(value / size)) as Cluster['cell'];
      let cluster = clusters.get(keyOf(cell));
      if (!cluster) {
        cluster = { cell, area: 0, moment: [0, 0, 0], lit: { area: 0, moment: [0, 0, 0], glow: [0, 0, 0] } };
        clusters.set(keyOf(cell), cluster);
      }
      cluster.area += area;
      for (let k = 0; k < 3; k += 1) cluster.moment[k]! += area * at[k]!;
      if (!lights) continue;
      const { lit } = cluster;
      lit.area += area;
      for (let k = 0; k < 3; k += 1) {
        lit.moment[k]! += area * at[k]!;
        lit.glow[k]! += area * scale * emissive[k]!;
      }
    }
  }
  for (const [key, { area }] of clusters) if (area === 0) clusters.delete(key);
  return clusters;
}

/** Clusters that hang together. */
function fixturesOf(clusters: Map<string, Cluster>): Cluster[][] {
  const fixtures: Cluster[][] = [];
  for (const [key, first] of clusters) {
    if (!clusters.delete(key)) continue;
    const fixture: Cluster[] = [];
    const queue = [first];
    for (let cluster = queue.pop(); cluster; cluster = queue.pop()) {
      fixture.push(cluster);
      for (let i = 0; i < 27; i += 1) {
        const near = keyOf([0, 1, 2].map((k) => cluster!.cell[k]! + (Math.floor(i / 3 ** k) % 3) - 1));
        const next = clusters.get(near);
        if (next && clusters.delete(near)) queue.push(next);
      }
    }
    fixtures.push(fixture);
  }
  return fixtures;
}

/**
 * The lamps of a fixture. It gives as much as a bulb does, a strip by its length, or what a surface of its area and
 * brightness gives, whichever is more. A bulb on the border of two cells is one lamp.
 */
function lampsOf(fixture: readonly Cluster[]): Lamp[] {
  const centres = fixture.map(({ moment, area }) => moment.map((value) => value / area));
  const extent = [0, 1, 2].map((k) => {
    const along = centres.map((centre) => centre[k]!);
    return Math.max(...along) - Math.min(...along);
  });
  const length = Math.hypot(...extent);
  const area = fixture.reduce((sum, cluster) => sum + cluster.area, 0);
  const strength = Math.max(BULB * Math.max(1, length / STRIP), area / Math.PI);
  const lamps = fixture.flatMap(({ lit }): Lamp[] => {
    if (lit.area === 0) return [];
    const mean = (sums: readonly number[]) => sums.map((value) => value / lit.area) as Lamp['position'];
    // The share of the fixture that it is, by area; its colour is what it gives off on average.
    const color = mean(lit.glow).map((value) => value * strength * (lit.area / area)) as Lamp['color'];
    return [{ position: mean(lit.moment), color }];
  });
  return length < CLUSTER ? joined(lamps, Infinity) : lamps;
}

/** Lamps of one cell as one, as bright as they are together. */
function joined(lamps: readonly Lamp[], size: number): Lamp[] {
  const cells = new Map<string, { moment: number[]; weight: number; color: Lamp['color'] }>();
  for (const { position, color } of lamps) {
    const key = size === Infinity ? '' : keyOf(position.map((value) => Math.round(value / size)));
    let cell = cells.get(key);
    if (!cell) cells.set(key, (cell = { moment: [0, 0, 0], weight: 0, color: [0, 0, 0] }));
    const weight = Math.max(...color);
    cell.weight += weight;
    for (let k = 0; k < 3; k += 1) {
      cell.moment[k]! += weight * position[k]!;
      cell.color[k]! += color[k]!;
    }
  }
  return [...cells.values()].map(({ moment, weight, color }) => ({
    position: moment.map((value) => value / weight) as Lamp['position'],
    color,
  }));
}
