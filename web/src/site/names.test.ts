import { describe, expect, test } from '@jest/globals';
import type { Survey } from '@eskovan/core/survey';
import { nameStoreys } from './names.ts';

const survey: Survey = {
  bounds: { min: [0, 0, 0], max: [1, 1, 1] },
  triangles: 1,
  contours: [],
  relief: null,
  storeys: [0, 3].map((elevation) => ({
    name: 'Found',
    elevation,
    area: 10,
    extent: [0, 0, 9, 9],
    plan: { cut: [], openCut: [], glass: [], below: [] },
    voids: [],
    rooms: [
      { name: 'Room 1', area: 5, at: [2, elevation, 2], places: [] },
      { name: 'Room 2', area: 5, at: [7, elevation, 7], places: [] },
    ],
    walkway: [],
  })),
};

describe('names that people gave', () => {
  test('belong to the storey of that height and the room at that place', () => {
    const named = nameStoreys(survey, [{ elevation: 3.1, name: 'Attic' }], [{ at: [2.4, 0, 2.2], name: 'Hall' }]);
    expect(named.storeys.map(({ name }) => name)).toEqual(['Found', 'Attic']);
    expect(named.storeys.map(({ rooms }) => rooms.map(({ name }) => name))).toEqual([
      ['Hall', 'Room 2'],
      ['Room 1', 'Room 2'],
    ]);
  });

  test('belong to the room that their place lies in, however far from its middle', () => {
    const long = survey.storeys[0]!.rooms[0]!;
    const places = Array.from({ length: 9 }, (_, i) => [2, 2 + i]).flat();
    const rooms = [
      { ...long, places },
      { ...survey.storeys[0]!.rooms[1]!, places: [7, 7, 6, 7] },
    ];
    const corridor = { ...survey, storeys: [{ ...survey.storeys[0]!, rooms }] };
    const namesAt = (at: [number, number, number]) =>
      nameStoreys(corridor, [], [{ at, name: 'Gallery' }]).storeys[0]!.rooms.map(({ name }) => name);
    expect(namesAt([2.3, 0, 9.8])).toEqual(['Gallery', 'Room 2']);
    expect(namesAt([6.2, 0.4, 6.6])).toEqual(['Room 1', 'Gallery']);
    // Between them, and upstairs, it is of neither.
    expect(namesAt([4.2, 0, 5])).toEqual(['Room 1', 'Room 2']);
    expect(namesAt([2, 3, 2])).toEqual(['Room 1', 'Room 2']);
  });

  test('of what is not found any more wait', () => {
    expect(nameStoreys(survey, [{ elevation: 9, name: 'Tower' }], [{ at: [40, 0, 2], name: 'Barn' }])).toEqual(survey);
  });
});
