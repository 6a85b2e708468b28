import { describe, expect, test } from '@jest/globals';
import { BoxGeometry, BufferGeometry, DataUtils } from 'three';
import { PLAIN_MATERIAL, type SceneMaterial } from '@eskovan/core/format';
import { FinishData } from './finish-data.ts';
import { mirrorPart } from './metal.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

/** glTF's material where a file says nothing of it. */
const material = (change: Partial<SceneMaterial>): SceneMaterial => ({
  ...PLAIN_MATERIAL,
  roughness: 1,
  metalness: 1,
  ...change,
});

describe('how much of a surface is seen by what it mirrors', () => {
  test('all of a polished metal, nothing of a perfectly rough one, and less the rougher it is', () => {
    expect(mirrorPart({ metalness: 1, roughness: 0.2 })).toBe(1);
    expect(mirrorPart({ metalness: 1, roughness: 1 })).toBe(0);
    expect(mirrorPart({ metalness: 0, roughness: 0.2 })).toBe(0);
    const parts = Array.from({ length: 21 }, (_, i) => mirrorPart({ metalness: 0.7, roughness: i / 20 }));
    parts.slice(1).forEach((part, i) => expect(part).toBeLessThanOrEqual(parts[i]!));
  });

  test('a file that says nothing of its surfaces sends out as much light as matt ones of its colours', () => {
    const part = partOf(new BoxGeometry(1, 1, 1));
    const count = part.positions.length / 3;
    const lit = {
      ...part,
      light: { ambient: new Float32Array(3 * count).fill(0.5), sun: new Float32Array(count).fill(1) },
    };
    const sentBy = (given: SceneMaterial) => {
      const data = new FinishData();
      data.add(lit as never, given, 0);
      const geometry = new BufferGeometry();
      data.addTo(geometry);
      const { array } = geometry.getAttribute('ambient');
      return [0, 1, 2].map((k) => DataUtils.fromHalfFloat(array[k]!));
    };
    expect(sentBy(material({}))).toEqual(sentBy(material({ metalness: 0 })));
    expect(Math.max(...sentBy(material({ roughness: 0.3 })))).toBe(0);
  });
});
