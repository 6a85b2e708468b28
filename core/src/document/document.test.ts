import { describe, expect, test } from '@jest/globals';
import {
  bodySchemas,
  DEFAULT_LENS,
  DocumentError,
  DOCUMENT_VERSION,
  KINDS,
  migrateBody,
  moveBodySchema,
  quaternionSchema,
  vec3Schema,
  viewBodySchema,
} from './index.ts';

const view = { pose: { position: [0, 1.6, 0], orientation: [0, 0, 0, 1] }, lens: DEFAULT_LENS };

describe('documents', () => {
  test('every kind has a schema', () => {
    expect(Object.keys(bodySchemas).sort()).toEqual([...KINDS].sort());
  });

  test('a body of this version comes back with its defaults filled in', () => {
    expect(migrateBody('view', DOCUMENT_VERSION, view)).toEqual({ ...view, thumbnail: null });
    expect(migrateBody('project', DOCUMENT_VERSION, {})).toMatchObject({
      rate: { num: 25, den: 1 },
      frame: { width: 16, height: 9 },
    });
  });

  test('a body written by a newer program is refused, never guessed at', () => {
    expect(() => migrateBody('view', DOCUMENT_VERSION + 1, view)).toThrow(DocumentError);
    expect(() => migrateBody('view', DOCUMENT_VERSION + 1, view)).toThrow(/Update Eskovan/);
  });

  test('a body that does not fit names the field', () => {
    expect(() => migrateBody('view', 1, { ...view, lens: { ...DEFAULT_LENS, focalLengthMm: -5 } })).toThrow(
      /view\.lens\.focalLengthMm/,
    );
  });

  test.each([Number.NaN, Infinity, '1', null])('%p is no coordinate', (value) => {
    expect(vec3Schema.safeParse([0, value, 0]).success).toBe(false);
  });

  test('an orientation has length one', () => {
    expect(quaternionSchema.safeParse([0, 0, 0, 1]).success).toBe(true);
    expect(quaternionSchema.safeParse([1, 1, 0, 1]).success).toBe(false);
    expect(viewBodySchema.safeParse({ ...view, pose: { ...view.pose, orientation: [0, 0, 0, 0] } }).success).toBe(
      false,
    );
  });

  test('a path has at most two thousand nodes', () => {
    const node = { id: '00000000-0000-4000-8000-000000000000', x: 0, y: 0, z: 0 };
    const walk = (count: number) => ({
      kind: 'walk',
      path: { nodes: Array(count).fill(node) },
      eyeHeight: 1.6,
      pace: { by: 'speed', speed: 1, duration: 1, shape: 'soft' },
      gaze: { kind: 'ahead' },
      lens: DEFAULT_LENS,
    });
    expect(moveBodySchema.safeParse(walk(2000)).success).toBe(true);
    expect(moveBodySchema.safeParse(walk(2001)).success).toBe(false);
  });
});
