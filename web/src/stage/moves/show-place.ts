import type { Vec3 } from '@eskovan/core/document';
import { lookingAt } from '@eskovan/core/framing';
import { storeyOfEye } from '@eskovan/core/survey';
import { workbench } from '../../desk/workbench.ts';
import type { SiteData } from '../../site/use-site.ts';

/** From where a place is looked at: so far away, and so high over it, metres. */
const AWAY = 2.5;
const UP = 1.6;

/** Brings a place of the site before the free eye, and its storey into the plan. */
export function showPlace([x, y, z]: Vec3, { survey, footing }: SiteData): void {
  const to: Vec3 = [x, y + UP / 2, z];
  const from = [0, 1, 2, 3, 4, 5, 6, 7]
    .map((k): Vec3 => [x + AWAY * Math.cos((k * Math.PI) / 4), y + UP, z + AWAY * Math.sin((k * Math.PI) / 4)])
    // Nobody looks at it through a wall, where there is another side.
    .sort((a, b) => Number(footing.solids.meets(a, to)) - Number(footing.solids.meets(b, to)))[0]!;
  workbench.set({
    scout: lookingAt({ position: from, orientation: [0, 0, 0, 1] }, to),
    playing: false,
    storey: storeyOfEye(y + UP, survey.storeys),
  });
}
