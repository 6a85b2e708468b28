import { expect, test } from '@jest/globals';
import {
  ALL_LIT,
  AS_IT_CAME,
  type BodyOf,
  type FileRef,
  type LitBody,
  type ProjectDocument,
} from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { ownLight } from '@eskovan/core/site';
import { exampleDocument, exampleFile, exampleModel, exampleRow, uuid } from '../testing/studio.tsx';
import { pictureScene } from './picture-scene.ts';

const file = exampleFile;
const model = (digit: string, change: Partial<BodyOf<'model'>> = {}) =>
  exampleModel({ packed: { file: file(digit), reader: READER }, ...change });
const lit = (scene: FileRef, glance: FileRef | null = null): LitBody => ({ scene, glance, first: false });
const sceneOf = (document: ProjectDocument, one: LitBody | null, alone: Parameters<typeof pictureScene>[3] = null) =>
  pictureScene(document, ownLight(document.project.body), one, alone);
const at = (digit: string) => `/api/files/${digit.repeat(64)}`;

test('without a model that is ready there is nothing to show', () => {
  expect(sceneOf(exampleDocument(), null)).toBeNull();
  const hidden = exampleDocument({ model: [exampleRow(5, 'House', model('a', { hidden: true }))] });
  expect(sceneOf(hidden, lit(file('3')))).toBeNull();
  const old = exampleDocument({ model: [exampleRow(5, 'House', model('a', { packed: null }))] });
  expect(sceneOf(old, null)).toBeNull();
});

test('models come as they are until their light is there, then lit together', () => {
  const document = exampleDocument({
    model: [
      exampleRow(5, 'House', model('a')),
      exampleRow(6, 'Tree', model('b', { hidden: true })),
      exampleRow(7, 'Hill', model('c')),
    ],
  });
  expect(sceneOf(document, null)!.source).toEqual({
    kind: 'plain',
    models: [
      { id: uuid(5), url: at('a'), placement: AS_IT_CAME },
      { id: uuid(7), url: at('c'), placement: AS_IT_CAME },
    ],
  });
  expect(sceneOf(document, lit(file('3')))!.source).toEqual({ kind: 'lit', url: at('3') });
  expect(sceneOf(document, lit(file('3'), file('4')))!.source).toEqual({
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
  const { dress, light } = sceneOf(document, lit(file('3')), alone)!;
  expect(dress).toEqual({
    look: 'clay',
    exposure: 0.5,
    parts: { [uuid(5)]: parts },
    materials: { [uuid(5)]: {} },
    lamps: ALL_LIT,
    alone,
  });
  // Rounded, so that a sun that has hardly moved is the same sun.
  expect(Math.hypot(...light.sun)).toBeCloseTo(1, 3);
});

test('what stands there has one name in every light, and another when something moves', () => {
  const house = model('a');
  const document = exampleDocument({ model: [exampleRow(5, 'House', house)] });
  const plain = sceneOf(document, null)!;
  const dusk = pictureScene(
    document,
    { ...ownLight(document.project.body), instant: '2026-08-28T18:40:00.000Z', sky: 'overcast', exposure: 1 },
    lit(file('3')),
    null,
  )!;
  expect(dusk.geometry).toBe(plain.geometry);
  expect(dusk.light).not.toEqual(plain.light);
  expect(dusk.dress.exposure).toBe(1);
  const moved = exampleDocument({
    model: [exampleRow(5, 'House', { ...house, placement: { ...AS_IT_CAME, turn: 0.1 } })],
  });
  expect(sceneOf(moved, null)!.geometry).not.toBe(plain.geometry);
});
