import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS } from './lens.ts';
import { earlierRows, type BeforeEntry } from './earlier.ts';
import type { Row } from './row.ts';

const PERSON = { id: '00000000-0000-4000-8000-000000000001', name: 'Ines' };
const OTHER = { id: '00000000-0000-4000-8000-000000000002', name: 'Otto' };
const ROW = {
  id: '00000000-0000-4000-8000-000000000003',
  name: 'Hall',
  order: 1,
  body: {
    pose: { position: [3, 0, 0], orientation: [0, 0, 0, 1] },
    lens: { ...DEFAULT_LENS, focalLengthMm: 35 },
    light: null,
    group: 'Ground',
    thumbnail: null,
  },
} as unknown as Row<'view'>;

/** An edit at a second of the day. */
const entry = (seq: number, second: number, before: BeforeEntry['before'], more: Partial<BeforeEntry> = {}) => ({
  seq,
  id: PERSON.id,
  projectId: PERSON.id,
  label: 'Update Hall',
  by: PERSON,
  machine: false,
  at: new Date(Date.UTC(2026, 0, 1, 12, 0, second)).toISOString(),
  touched: [],
  before,
  ...more,
});
const poseAt = (x: number) => ({
  facet: ['body', 'pose'] as ['body', string],
  value: { position: [x, 0, 0], orientation: [0, 0, 0, 1] },
});
const lens = (focalLengthMm: number) => ({
  facet: ['body', 'lens'] as ['body', string],
  value: { ...DEFAULT_LENS, focalLengthMm },
});

describe('what a row was', () => {
  test('goes back edit by edit, each only as far as it says', () => {
    const earlier = earlierRows(ROW, [entry(9, 600, [poseAt(2)]), entry(7, 300, [lens(24), poseAt(1)])]);
    expect(
      earlier.map(({ row, until }) => [until.seq, row.body.pose.position[0], row.body.lens.focalLengthMm]),
    ).toEqual([
      [9, 2, 35],
      [7, 1, 24],
    ]);
    expect(earlier[1]!.row).toMatchObject({ id: ROW.id, name: 'Hall', body: { group: 'Ground' } });
    expect(ROW.body.pose.position[0]).toBe(3);
  });

  test('is one step where one person does the same again within a minute', () => {
    const of = (...entries: BeforeEntry[]) => earlierRows(ROW, entries).map(({ row }) => row.body.pose.position[0]);
    expect(of(entry(9, 110, [poseAt(2)]), entry(8, 60, [poseAt(1)]), entry(7, 0, [poseAt(0)]))).toEqual([1, 0]);
    expect(of(entry(9, 50, [poseAt(2)]), entry(8, 40, [poseAt(1)], { by: OTHER }))).toEqual([2, 1]);
    expect(of(entry(9, 50, [poseAt(2)]), entry(8, 40, [poseAt(1)], { label: 'Lens' }))).toEqual([2, 1]);
  });

  test('had no value where there was none', () => {
    const [before] = earlierRows(ROW, [entry(9, 0, [{ facet: ['body', 'group'] }])]);
    expect(before!.row.body).not.toHaveProperty('group');
    expect(earlierRows(ROW, [])).toEqual([]);
  });
});
