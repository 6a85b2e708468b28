import type { Row } from '@eskovan/core/document';
import { placesOf, subjectOf, type CompiledMove } from '@eskovan/core/move';
import type { Survey } from '@eskovan/core/survey';
import { useEffect, useMemo } from 'react';
import { workbench } from '../../desk/workbench.ts';
import type { PlanFocus } from '../../plan/plan.tsx';
import { grown } from '../../plan/viewport.ts';

/** Index of the storey that most of a move's places are on; −1 for a move without any. */
export function storeyOfPlaces(places: readonly { y: number }[], storeys: Survey['storeys']): number {
  const votes = storeys.map(() => 0);
  for (const { y } of places) {
    const away = storeys.map(({ elevation }) => Math.abs(elevation - y));
    votes[away.indexOf(Math.min(...away))]! += 1;
  }
  const most = Math.max(0, ...votes);
  return most === 0 ? -1 : votes.indexOf(most);
}

/** What stands is shown with so much about it, metres; in a small model, as many times its size. */
const [ABOUT, ABOUT_SMALL] = [8, 1.5];
/** Places of a path that are looked at for where it is. */
const LOOKED_AT = 32;

/** What a chosen move asks of the plan: its storey is shown, and all of it, wherever that is. */
export function useShownMove(
  row: Row<'move'> | null,
  move: CompiledMove | null,
  { storeys, bounds: { min, max } }: Survey,
): PlanFocus | null {
  const key = row && `${row.id} ${subjectOf(row.body)}`;
  useEffect(() => {
    const storey = row ? storeyOfPlaces(placesOf(row.body), storeys) : -1;
    if (storey >= 0) workbench.set({ storey });
    // Choosing a move asks for its storey once; whoever looks at another one then may.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const about = Math.min(ABOUT, ABOUT_SMALL * Math.max(max[0] - min[0], max[2] - min[2]));
  return useMemo(() => {
    const path = move?.path;
    if (!key || !move) return null;
    const [x, , z] = move.sampleAt(0).position;
    if (!path) return { key, area: grown({ minX: x, maxX: x, minZ: z, maxZ: z }, about) };
    const point = new Float64Array(2);
    const area = { minX: Infinity, minZ: Infinity, maxX: -Infinity, maxZ: -Infinity };
    for (let i = 0; i <= LOOKED_AT; i += 1) {
      path.pointAt((path.length * i) / LOOKED_AT, point);
      area.minX = Math.min(area.minX, point[0]!);
      area.maxX = Math.max(area.maxX, point[0]!);
      area.minZ = Math.min(area.minZ, point[1]!);
      area.maxZ = Math.max(area.maxZ, point[1]!);
    }
    return { key, area };
  }, [key, move, about]);
}
