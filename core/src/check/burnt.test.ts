import { describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, FIRST_LIMITS, lensSchema, type StillCamera } from '../document/index.ts';
import { burntFindings } from './burnt.ts';
import { checkStill } from './still.ts';

const camera = (exposure?: number): StillCamera => ({
  pose: { position: [0, 1.6, 0], orientation: [0, 0, 0, 1] },
  lens: { ...DEFAULT_LENS, ...(exposure !== undefined && { exposure }) },
});

describe('a still that burns out', () => {
  test('is noted from the limit on, by how much of it is white', () => {
    const { burntOut } = FIRST_LIMITS;
    expect(burntFindings(camera(), { part: burntOut, darker: 0 }, FIRST_LIMITS)).toEqual([]);
    const [finding] = burntFindings(camera(), { part: 2 * burntOut, darker: 1.23 }, FIRST_LIMITS);
    expect(finding).toMatchObject({ rule: 'burnt out', worst: 2 * burntOut, limit: burntOut });
  });

  test.each([
    [undefined, 1.23, -1.3],
    [0.5, 0.7, -0.2],
    [2, 0.02, 1.9],
  ])('at %s stops, %s too light, is mended at %s', (exposure, darker, mended) => {
    const [finding] = burntFindings(camera(exposure), { part: 0.5, darker }, FIRST_LIMITS);
    expect(finding!.fix!.lens.exposure).toBeCloseTo(mended, 9);
    expect(lensSchema.safeParse(finding!.fix!.lens).success).toBe(true);
    expect(finding!.fix!.pose).toEqual(camera().pose);
  });

  test('has no mend where none is known, and none beyond what an exposure can be', () => {
    for (const darker of [null, 3.01])
      expect(burntFindings(camera(), { part: 0.5, darker }, FIRST_LIMITS)).toMatchObject([{ fix: null }]);
  });

  test('is one of the checks of a still, once its picture was looked at', () => {
    const rules = (burnt: Parameters<typeof checkStill>[5]) =>
      checkStill(camera(), 1.5, null, FIRST_LIMITS, null, burnt).map(({ rule }) => rule);
    expect(rules(null)).not.toContain('burnt out');
    expect(rules({ part: 0.5, darker: 1 })).toContain('burnt out');
  });
});
