import { expect, test } from '@jest/globals';
import { PLAIN_MATERIAL } from '@eskovan/core/format';
import { BoxGeometry } from 'three';
import { buildLineWork } from './line-work.ts';
import { partOf } from '../../../core/src/format/geometry-part.fixture.ts';

test('glass has no lines, and a model of nothing else draws none', () => {
  const part = partOf(new BoxGeometry());
  const drawn = (opacity: number) =>
    buildLineWork({ parts: [part], materials: [{ ...PLAIN_MATERIAL, opacity }], textures: [] });
  expect(drawn(1)).not.toEqual([]);
  expect(drawn(0.3)).toEqual([]);
});
