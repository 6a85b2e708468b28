import type { ScenePart } from '../../format/index.ts';

/** From every vertex some centimetres into its faces: a vertex in the corner of a room lies inside the next wall. */
export function towardsCentres(part: ScenePart): Float32Array {
  const out = new Float32Array(part.positions.length);
  const { positions: p, indices } = part;
  for (let t = 0; t < indices.length; t += 3)
    for (let corner = 0; corner < 3; corner += 1)
      for (let k = 0; k < 3; k += 1) {
        const [a, b, c] = [indices[t]!, indices[t + 1]!, indices[t + 2]!];
        const centre = (p[3 * a + k]! + p[3 * b + k]! + p[3 * c + k]!) / 3;
        out[3 * indices[t + corner]! + k]! += centre - p[3 * indices[t + corner]! + k]!;
      }
  for (let v = 0; v < out.length; v += 3) {
    const length = Math.hypot(out[v]!, out[v + 1]!, out[v + 2]!);
    const scale = length > 1e-6 ? Math.min(0.09, 0.3 * length) / length : 0;
    for (let k = 0; k < 3; k += 1) out[v + k]! *= scale;
  }
  return out;
}

/**
 * Averages the light of every point with its neighbours on the same face. A few rays a point leave noise, and a point
 * that happens to lie behind a picture frame would darken half a wall: this keeps the shadow and loses the blotch.
 * `light` has any fixed count of numbers a vertex.
 */
export function evenOut(part: ScenePart, light: Float32Array, first: Uint32Array): Float32Array {
  const { indices, normals } = part;
  const channels = light.length / (normals.length / 3);
  const sum = new Float32Array(light.length);
  const count = new Uint32Array(normals.length / 3);
  const add = (a: number, b: number) => {
    const [to, from] = [first[a]!, first[b]!];
    const facing =
      normals[3 * to]! * normals[3 * from]! +
      normals[3 * to + 1]! * normals[3 * from + 1]! +
      normals[3 * to + 2]! * normals[3 * from + 2]!;
    if (to === from || facing < 0.9) return;
    for (let k = 0; k < channels; k += 1) sum[channels * to + k]! += light[channels * from + k]!;
    count[to]! += 1;
  };
  for (let t = 0; t < indices.length; t += 3)
    for (let corner = 0; corner < 3; corner += 1) {
      const [a, b] = [indices[t + corner]!, indices[t + ((corner + 1) % 3)]!];
      add(a, b);
      add(b, a);
    }
  const out = new Float32Array(light.length);
  for (let v = 0; v < count.length; v += 1) {
    const place = first[v]!;
    for (let k = 0; k < channels; k += 1) {
      const own = light[channels * place + k]!;
      out[channels * v + k] = count[place]! > 0 ? 0.5 * own + (0.5 * sum[channels * place + k]!) / count[place]! : own;
    }
  }
  return out;
}

/** Of the vertices of a part. */
export interface Contacts {
  /** Which side of a contact each is on: 0 is open, others lie under something. */
  sides: Uint8Array;
  /** The first one at its place, whatever its side. */
  places: Uint32Array;
}

/**
 * For every vertex the one whose light it has: what seemed to lie under something, and gets light all the same, shares that
 * of the open side. A line that ends within a triangle says little of what is behind it.
 */
export function joinOpen(light: Float32Array, first: Uint32Array, { sides, places }: Contacts): Uint32Array {
  const channels = light.length / first.length;
  const open = new Map<number, number>();
  first.forEach((own, v) => {
    if (sides[v] === 0) open.set(places[v]!, own);
  });
  return first.map((own, v) =>
    sides[v] === 0 || Number.isNaN(light[channels * own]!) ? own : (open.get(places[v]!) ?? own),
  );
}

/** Rounds in which points inside of things take the light of their neighbours. */
const SPREAD = 12;

/**
 * Gives points that lie inside something (NaN) the light of neighbours on the same face, from further and further away;
 * what has none is dark, or like the rest of the part. `light` has any fixed count of numbers a vertex.
 * @param places like `first`, but the same on both sides of a cut: what lies under a wall takes light from beside it last
 */
export function fillBuried(
  part: ScenePart,
  light: Float32Array,
  first: Uint32Array,
  places = first,
  rest: 'dark' | 'alike' = 'dark',
): Float32Array {
  const channels = light.length / (part.normals.length / 3);
  const lacks = (v: number) => Number.isNaN(light[channels * first[v]!]!);
  if (!first.some((_, v) => lacks(v))) return light;
  const out = light.slice();
  spread(part, out, first);
  if (places !== first) {
    takeFromBeside(out, channels, first, places);
    spread(part, out, first);
  }
  const others = rest === 'alike' ? meanOf(out, channels) : new Float64Array(channels);
  for (let v = 0; v < first.length; v += 1)
    for (let k = 0; k < channels; k += 1) {
      const value = out[channels * first[v]! + k]!;
      out[channels * v + k] = Number.isNaN(value) ? others[k]! : value;
    }
  return out;
}

/** Mean of what is known; nothing where nothing is. */
function meanOf(light: Float32Array, channels: number): Float64Array {
  const mean = new Float64Array(channels);
  let known = 0;
  for (let o = 0; o < light.length; o += channels) {
    if (Number.isNaN(light[o]!)) continue;
    known += 1;
    for (let k = 0; k < channels; k += 1) mean[k]! += light[o + k]!;
  }
  return known > 0 ? mean.map((sum) => sum / known) : mean;
}

/** Gives what has no light that of what has some at the same place. */
function takeFromBeside(out: Float32Array, channels: number, first: Uint32Array, places: Uint32Array): void {
  const known = new Map<number, number>();
  first.forEach((own, v) => {
    if (!Number.isNaN(out[channels * own]!)) known.set(places[v]!, own);
  });
  first.forEach((own, v) => {
    const from = known.get(places[v]!);
    if (from !== undefined && Number.isNaN(out[channels * own]!))
      out.copyWithin(channels * own, channels * from, channels * (from + 1));
  });
}

/** Lets light spread to neighbours on the same face that have none. */
function spread({ indices, normals }: ScenePart, out: Float32Array, first: Uint32Array): void {
  const channels = out.length / (normals.length / 3);
  for (let round = 0; round < SPREAD; round += 1) {
    const sum = new Map<number, { values: Float64Array; count: number }>();
    const give = (from: number, to: number) => {
      const [f, t] = [first[from]!, first[to]!];
      if (!Number.isNaN(out[channels * t]!) || Number.isNaN(out[channels * f]!)) return;
      const facing = [0, 1, 2].reduce((dot, k) => dot + normals[3 * f + k]! * normals[3 * t + k]!, 0);
      if (facing < 0.8) return;
      let known = sum.get(t);
      if (!known) sum.set(t, (known = { values: new Float64Array(channels), count: 0 }));
      for (let k = 0; k < channels; k += 1) known.values[k]! += out[channels * f + k]!;
      known.count += 1;
    };
    for (let t = 0; t < indices.length; t += 3)
      for (let corner = 0; corner < 3; corner += 1) {
        const [a, b] = [indices[t + corner]!, indices[t + ((corner + 1) % 3)]!];
        give(a, b);
        give(b, a);
      }
    if (sum.size === 0) break;
    for (const [v, { values, count }] of sum)
      for (let k = 0; k < channels; k += 1) out[channels * v + k] = values[k]! / count;
  }
}

/** For every vertex the first one at its place that is on its side of a contact, too. */
export function firstOfSides({ sides, places }: Contacts): Uint32Array {
  const known = new Map<number, number>();
  return places.map((place, v) => {
    const key = 2 * place + (sides[v] === 0 ? 0 : 1);
    const same = known.get(key);
    if (same === undefined) known.set(key, v);
    return same ?? v;
  });
}

/** For every vertex the first one at its place with its normal: flat faces bring corners of their own. */
export function samePlaces(part: ScenePart): Uint32Array {
  const first = new Uint32Array(part.positions.length / 3);
  const known = new Map<string, number>();
  for (let v = 0; v < first.length; v += 1) {
    const key = placeKey(part, v);
    const same = known.get(key);
    if (same === undefined) known.set(key, v);
    first[v] = same ?? v;
  }
  return first;
}

/** Two centimetres and a coarse direction are one place. */
function placeKey({ positions: p, normals: n }: ScenePart, v: number): string {
  const o = 3 * v;
  const at = (k: number) => Math.round(p[o + k]! * 50);
  const to = (k: number) => Math.round(n[o + k]! * 4);
  return `${at(0)},${at(1)},${at(2)},${to(0)},${to(1)},${to(2)}`;
}
