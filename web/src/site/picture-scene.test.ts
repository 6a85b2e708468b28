import { expect, test } from '@jest/globals';
import { AS_IT_CAME, type BodyOf, type FileRef, type SiteBody } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { exampleDocument, exampleFile, exampleModel, exampleRow, uuid } from '../testing/studio.tsx';
import { pictureScene } from './picture-scene.ts';

const file = exampleFile;
const model = (digit: string, change: Partial<BodyOf<'model'>> = {}) =>
  exampleModel({ packed: { file: file(digit), reader: READER }, ...change });
const site = (scene: FileRef | null, glance: FileRef | null = null): SiteBody => ({
  survey: file('1'),
  floor: file('2'),
  walkway: null,
  scene,
  glance,
  light: null,
  first: false,
  bounds: { min: [0, 0, 0], max: [1, 1, 1] },
  triangles: 12,
  storeys: [],
});
const at = (digit: string) => `/api/files/${digit.repeat(64)}`;

test('without a model that is ready there is nothing to show', () => {
  expect(pictureScene(exampleDocument(), null, null)).toBeNull();
  const hidden = exampleDocument({ model: [exampleRow(5, 'House', model('a', { hidden: true }))] });
  expect(pictureScene(hidden, site(file('3')), null)).toBeNull();
  const old = exampleDocument({ model: [exampleRow(5, 'House', model('a', { packed: null }))] });
  expect(pictureScene(old, null, null)).toBeNull();
});

test('models come as they are until their light is there, then lit together', () => {
  const document = exampleDocument({
    model: [
      exampleRow(5, 'House', model('a')),
      exampleRow(6, 'Tree', model('b', { hidden: true })),
      exampleRow(7, 'Hill', model('c')),
    ],
  });
  for (const early of [null, site(null)])
    expect(pictureScene(document, early, null)!.source).toEqual({
      kind: 'plain',
      models: [
        { id: uuid(5), url: at('a'), placement: AS_IT_CAME },
        { id: uuid(7), url: at('c'), placement: AS_IT_CAME },
      ],
    });
  expect(pictureScene(document, site(file('3')), null)!.source).toEqual({ kind: 'lit', url: at('3') });
  expect(pictureScene(document, site(file('3'), file('4')), null)!.source).toEqual({
    kind: 'lit',
    url: at('3'),
    glance: at('4'),
  });
});

test('what people changed is put on: look, exposure, parts, what is shown alone', () => {
  const parts = { Roof: { clay: true } };
  const document = exampleDocument({ model: [exampleRow(5, 'House', model('a', { parts }))] });
  document.project.body.look = 'clay';
  document.project.body.exposure = 0.5;
  const alone = { model: uuid(5), name: 'Roof' };
  const { dress, sun } = pictureScene(document, site(file('3')), alone)!;
  expect(dress).toEqual({
    look: 'clay',
    exposure: 0.5,
    parts: { [uuid(5)]: parts },
    materials: { [uuid(5)]: {} },
    alone,
  });
  // Rounded, so that a sun that has hardly moved is the same sun.
  expect(Math.hypot(...sun)).toBeCloseTo(1, 3);
});
