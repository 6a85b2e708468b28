import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, CylinderGeometry, PlaneGeometry, type BufferGeometry } from 'three';
import { featureEdges, joinShapes } from './edges.ts';

const shape = (geometry: BufferGeometry) => ({
  positions: Float32Array.from(geometry.getAttribute('position').array),
  indices: Uint32Array.from(geometry.index!.array),
});
const length = (lines: Float32Array) => {
  let sum = 0;
  for (let o = 0; o < lines.length; o += 6)
    sum += Math.hypot(lines[o + 3]! - lines[o]!, lines[o + 4]! - lines[o + 1]!, lines[o + 5]! - lines[o + 2]!);
  return sum;
};

describe('lines of a drawing', () => {
  test('a box has its twelve edges, and no diagonals', () => {
    const lines = featureEdges(shape(new BoxGeometry(1, 2, 3)));
    expect(lines.length / 6).toBe(12);
    expect(length(lines)).toBeCloseTo(4 * (1 + 2 + 3), 5);
  });

  test('a finely cut plane has only its outline', () => {
    expect(length(featureEdges(shape(new PlaneGeometry(4, 2, 8, 4))))).toBeCloseTo(12, 5);
  });

  test('a round column has its two circles and no lines along it', () => {
    const lines = featureEdges(shape(new CylinderGeometry(1, 1, 5, 48)));
    expect(length(lines)).toBeCloseTo(2 * 48 * 2 * Math.sin(Math.PI / 48), 3);
  });

  test('a sheet that is there twice, or with a back of its own, has its outline all the same', () => {
    const sheet = shape(new PlaneGeometry(4, 2, 8, 4));
    const back = { ...sheet, indices: Uint32Array.from(sheet.indices).reverse() };
    for (const both of [
      [sheet, sheet],
      [sheet, back],
    ])
      expect(length(featureEdges(joinShapes(both)))).toBeCloseTo(12, 5);
  });

  test('pieces that touch in one plane make no line between them', () => {
    const joined = joinShapes([shape(new PlaneGeometry(2, 2)), shape(new PlaneGeometry(2, 2).translate(2, 0, 0))]);
    expect(length(featureEdges(joined))).toBeCloseTo(12, 5);
  });
});
