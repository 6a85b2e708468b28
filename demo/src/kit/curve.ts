import { CatmullRomCurve3, Vector3 } from 'three';
import type { Point } from './point.ts';

export interface Station {
  at: Point;
  /** Unit vector along the curve, level. */
  along: readonly [number, number];
  /** Metres from the start. */
  distance: number;
}

/** Evenly spaced stations on a smooth curve through plan points; heights are given by distance. */
export function stations(
  points: readonly (readonly [x: number, z: number])[],
  spacing: number,
  heightAt: (distance: number, x: number, z: number) => number,
): Station[] {
  const curve = new CatmullRomCurve3(
    points.map(([x, z]) => new Vector3(x, 0, z)),
    false,
    'centripetal',
  );
  curve.arcLengthDivisions = 400;
  const length = curve.getLength();
  const count = Math.max(1, Math.round(length / spacing));
  return Array.from({ length: count + 1 }, (_, i) => {
    const { x, z } = curve.getPointAt(i / count);
    const tangent = curve.getTangentAt(i / count);
    const distance = (length * i) / count;
    return { at: [x, heightAt(distance, x, z), z], along: [tangent.x, tangent.z], distance };
  });
}

/** A point beside a station, metres to the right of the way and up. */
export const beside = ({ at, along }: Station, right: number, up: number): Point => [
  at[0] - along[1] * right,
  at[1] + up,
  at[2] + along[0] * right,
];
