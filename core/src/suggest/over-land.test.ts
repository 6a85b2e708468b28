import { beforeAll, describe, expect, test } from '@jest/globals';
import { DEFAULT_LENS, FIRST_WALKER } from '../document/index.ts';
import { readModel } from '../format/index.ts';
import { VOLCANO, VOLCANO_CELL, volcanoAsciiGrid } from '../format/heights.fixture.ts';
import { boundsOf, forwardOf } from '../geometry/index.ts';
import { box } from '../move/floor-scenes.fixture.ts';
import { surveyModel } from '../survey/index.ts';
import { modelOf } from '../survey/soup.fixture.ts';
import { suggestViews, type Suggestion, type SuggestSite } from './index.ts';

const WISH = { lens: { ...DEFAULT_LENS, focalLengthMm: 24 }, aspect: 16 / 9, eyeHeight: 1.6 };
/** Half the picture to each side, radians. */
const HALF = Math.atan(18 / 24);

/** The height of the hill at a place of the model, whose middle is the grid's; metres. */
function heightAt(x: number, z: number): number {
  const { width, height, values } = VOLCANO;
  const [column, row] = [x / VOLCANO_CELL + (width - 1) / 2, z / VOLCANO_CELL + (height - 1) / 2];
  return values[Math.round(row) * width + Math.round(column)]!;
}

// Outside check: the heights of a real hill with a crater (see the fixture), walked along ray by ray.
describe('views over a hill with a crater', () => {
  let site: SuggestSite;
  let found: Suggestion[];
  beforeAll(async () => {
    const { survey, footing } = surveyModel(await readModel(volcanoAsciiGrid(), 'hill.asc'), FIRST_WALKER);
    site = { survey, footing, bounds: survey.bounds, things: [], sun: [0.5, 0.6, 0.62] };
    found = suggestViews(site, WISH);
  });

  test('two from above first, then from places on the ground; each only once', () => {
    expect(found.length).toBeGreaterThanOrEqual(5);
    expect(found.slice(0, 2).map(({ land }) => land)).toEqual(['above', 'above']);
    const ground = found.filter(({ land }) => land === 'ground');
    expect(ground.length).toBeGreaterThanOrEqual(3);
    const places = ground.map(({ camera }) => camera.pose.position);
    places.forEach(([x, , z], i) => {
      for (const [ox, , oz] of places.slice(0, i)) expect(Math.hypot(x - ox, z - oz)).toBeGreaterThan(50);
    });
  });

  test('from above all of the land is before the camera, from over its highest place', () => {
    for (const { camera, land } of found) {
      if (land !== 'above') continue;
      const { position, orientation } = camera.pose;
      expect(position[1]).toBeGreaterThan(site.bounds.max[1]);
      expect(forwardOf(orientation)[1]).toBeLessThan(-0.2);
    }
  });

  test('whoever stands there stands on the ground and looks far: no picture ends at a slope before it', () => {
    for (const { camera, land, depth } of found) {
      if (land !== 'ground') continue;
      const [x, y, z] = camera.pose.position;
      expect(y - heightAt(x, z)).toBeGreaterThan(1.6 - 8);
      expect(y - heightAt(x, z)).toBeLessThan(1.6 + 8);
      expect(y - site.footing.floors.floorBelow(x, z, Infinity)).toBeCloseTo(1.6, 6);
      const [fx, , fz] = forwardOf(camera.pose.orientation);
      const pan = Math.atan2(-fx, -fz);
      for (const aside of [-1, -0.5, 0, 0.5, 1]) {
        const way = pan + aside * HALF;
        const [px, pz] = [x - 12 * Math.sin(way), z - 12 * Math.cos(way)];
        expect((site.footing.floors.floorBelow(px, pz, Infinity) - y) / 12).toBeLessThan(0.2);
      }
      expect(depth).toBeGreaterThan(150);
    }
  });

  test('a house in it whose rooms nobody knows is looked at, too: from around it, by who stands on the ground', async () => {
    const land = await readModel(volcanoAsciiGrid(), 'hill.asc');
    const ground = site.footing.floors.floorBelow(-250, 200, Infinity);
    const block = modelOf(Float32Array.from(box(-258, -242, ground - 2, ground + 9, 190, 210)));
    const both = {
      ...land,
      parts: [...land.parts, ...block.parts.map((part) => ({ ...part, material: 0, name: 'House' }))],
    };
    const { survey, footing } = surveyModel(both, FIRST_WALKER);
    const things = both.parts.map(({ name, positions }) => ({ name, bounds: boundsOf(positions) }));
    const views = suggestViews({ survey, footing, bounds: survey.bounds, things, sun: [0.5, 0.6, 0.62] }, WISH);
    expect(views.some(({ land: one }) => one === 'above')).toBe(true);
    const around = views.filter(({ land: one }) => !one);
    expect(around).toHaveLength(4);
    for (const { camera } of around) {
      const [x, y, z] = camera.pose.position;
      expect(y - footing.floors.floorBelow(x, z, Infinity)).toBeCloseTo(1.6, 6);
      const away = Math.hypot(x + 250, z - 200);
      expect(away).toBeGreaterThan(10);
      expect(away).toBeLessThan(120);
      const [fx, , fz] = forwardOf(camera.pose.orientation);
      expect(((-250 - x) * fx + (200 - z) * fz) / away).toBeGreaterThan(0.97);
    }
  });

  test('of a plain there are views from above alone: nothing stands against its sky', async () => {
    const flat = `ncols 30\nnrows 30\nxllcorner 0\nyllcorner 0\ncellsize 20\n${Array.from({ length: 30 }, (_, r) => Array.from({ length: 30 }, (_, c) => ((r + c) % 7) * 0.01).join(' ')).join('\n')}\n`;
    const { survey, footing } = surveyModel(await readModel(new TextEncoder().encode(flat), 'plain.asc'), FIRST_WALKER);
    const plain = suggestViews({ survey, footing, bounds: survey.bounds, things: [], sun: null }, WISH);
    expect(plain.filter(({ land }) => land === 'above')).toHaveLength(4);
    expect(plain).toHaveLength(4);
  });
});
