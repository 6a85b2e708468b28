import { describe, expect, test } from '@jest/globals';
import { movingGlb, type Channel, type MovingNode } from './moving-glb.fixture.ts';
import { unkeepableText } from '../../document/index.ts';
import { packModel, readGlb, readModel, unpackModel } from '../index.ts';

const NODES: readonly MovingNode[] = [
  { name: 'Crane', children: [{ name: 'Arm', box: true, at: [0, 3, 0] }, { name: 'Bulb' }] },
  { name: 'Shed', box: true },
];
const lift = (change: Partial<Channel> = {}): Channel => ({
  node: 'Arm',
  path: 'translation',
  times: [0, 2],
  values: [0, 3, 0, 0, 5, 0],
  ...change,
});
const read = async (movements: Record<string, readonly Channel[]>, nodes = NODES) =>
  readGlb(await movingGlb(nodes, movements), 'crane.glb');

describe('movements of a glTF file', () => {
  test('are kept with the joints that carry something, and packed with the model', async () => {
    const model = await read({ Lift: [lift(), lift({ node: 'Bulb' })] });
    expect(model.notes).toEqual([]);
    expect(model.joints).toMatchObject([{ name: 'Arm', parent: null, rest: { translation: [0, 3, 0] } }]);
    expect(model.movements).toMatchObject([{ name: 'Lift', duration: 2, targets: ['Arm'] }]);
    expect(model.parts.map(({ name, joint }) => [name, joint])).toEqual([
      ['Crane / Arm', 0],
      ['Shed', undefined],
    ]);
    const back = unpackModel(packModel(model));
    expect(back.movements).toEqual(model.movements);
    expect(back.joints).toEqual(model.joints);
    expect(back.parts[0]!.joint).toBe(0);
  });

  test('hang on each other where nodes do', async () => {
    const model = await read({ Lift: [lift(), lift({ node: 'Crane' })] });
    expect(model.joints!.map(({ name, parent }) => [name, parent])).toEqual([
      ['Crane', null],
      ['Arm', 0],
    ]);
  });

  test('of the same name are told apart, and those without one get one', async () => {
    const document = await read({ Lift: [lift()], 'Lift ': [lift()], '': [lift()] });
    expect(document.movements!.map(({ name }) => name)).toEqual(['Lift', 'Lift 2', 'Movement 3']);
  });

  test.each<[string, Channel, RegExp]>([
    ['times that do not rise', lift({ times: [2, 1] }), /“Lift” cannot be played: the times of its keys do not rise/],
    ['times below zero', lift({ times: [-1, 1] }), /times of its keys do not rise/],
    ['values that are no numbers', lift({ values: [0, 3, 0, 0, NaN, 0] }), /a value of its keys is no number/],
    ['too few values', lift({ values: [0, 3, 0] }), /there are 1 values for 2 keys of its translation/],
    [
      'cubic keys without tangents',
      lift({ between: 'CUBICSPLINE' }),
      /there are 2 values for 2 keys of its translation/,
    ],
    ['shapes only', lift({ path: 'weights', values: [0, 1] }), /“Lift” moves nothing that can be shown/],
    ['nodes without geometry only', lift({ node: 'Bulb' }), /“Lift” moves nothing that can be shown/],
  ])('with %s are left out with a note; the model comes', async (_, channel, note) => {
    const model = await read({ Lift: [channel] });
    expect(model.movements).toEqual([]);
    expect(model.notes).toEqual([expect.stringMatching(note)]);
    expect(model.parts).toHaveLength(2);
  });

  test('of what has no size at rest are not played', async () => {
    const model = await read({ Lift: [lift()] }, [{ name: 'Arm', box: true, size: [0, 0, 0] }]);
    expect(model.joints).toEqual([]);
    expect(model.notes[0]).toMatch(/“Arm” has no size at rest/);
  });
});

test('a movement named with U+0000 and half a pair of characters is one that can be kept', async () => {
  const model = await readModel(await movingGlb(NODES, { 'Li\u0000ft \ud800': [lift()] }), 'crane.glb');
  expect(model.movements!.map(({ name }) => name)).toEqual(['Li\ufffdft \ufffd']);
  expect(unkeepableText(model.movements)).toBeNull();
});
