import type { BakedLight, ScenePart } from '../../format/index.ts';

/** Corners nearer than this are one place, metres. */
const SAME_PLACE = 1e-4;
/** Light that differs by more than this factor is another light: a sheet stands between. */
const OTHER = 2.5;

interface Corner {
  part: number;
  v: number;
}

/**
 * Gives corners of different parts that lie at one place and face one way one light: a wall of several pieces is evened out
 * piece by piece, and would show where they meet. Where a part knows two lights at a place itself, something stands
 * there, and all keep their own.
 * @param wanted vertices of each part that may meet others
 */
export function evenSeams(parts: readonly ScenePart[], wanted: readonly Iterable<number>[]): ScenePart[] {
  const places = new Map<string, Corner[]>();
  parts.forEach(({ positions: p, normals: n, light }, part) => {
    if (!light) return;
    for (const v of wanted[part]!) {
      const at = (k: number) => Math.round(p[3 * v + k]! / SAME_PLACE);
      const way = (k: number) => Math.round(2 * n[3 * v + k]!);
      const key = `${at(0)},${at(1)},${at(2)},${way(0)},${way(1)},${way(2)}`;
      const corners = places.get(key);
      if (corners) corners.push({ part, v });
      else places.set(key, [{ part, v }]);
    }
  });
  const lights = new Map<number, BakedLight>();
  for (const corners of places.values()) {
    if (corners.length < 2 || corners.every(({ part }) => part === corners[0]!.part)) continue;
    const whole = corners.map(({ part, v }) => brightness(parts[part]!.light!, v));
    if (Math.max(...whole) > OTHER * Math.min(...whole)) continue;
    if (corners.some(({ part }, i) => corners.some((other, j) => part === other.part && differs(whole[i]!, whole[j]!))))
      continue;
    const mean = (of: (light: BakedLight, v: number) => number) =>
      corners.reduce((sum, { part, v }) => sum + of(parts[part]!.light!, v), 0) / corners.length;
    const ambient = [0, 1, 2].map((k) => mean((light, v) => light.ambient[3 * v + k]!));
    const sun = mean((light, v) => light.sun[v]!);
    for (const { part, v } of corners) {
      let own = lights.get(part);
      if (!own) {
        const { light } = parts[part]!;
        lights.set(part, (own = { ...light, ambient: light!.ambient.slice(), sun: light!.sun.slice() }));
      }
      own.ambient.set(ambient, 3 * v);
      own.sun[v] = sun;
    }
  }
  return parts.map((part, i) => (lights.has(i) ? { ...part, light: lights.get(i)! } : part));
}

const brightness = ({ ambient }: BakedLight, v: number): number =>
  ambient[3 * v]! + ambient[3 * v + 1]! + ambient[3 * v + 2]!;

const differs = (one: number, two: number): boolean => Math.abs(one - two) > 0.02 * Math.max(one, two);
