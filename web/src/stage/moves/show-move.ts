import type { Row } from '@eskovan/core/document';
import { placesOf } from '@eskovan/core/move';
import type { Survey } from '@eskovan/core/survey';
import { useEffect, useMemo } from 'react';
import { workbench } from '../../desk/workbench.ts';
import type { PlanFocus } from '../../plan/plan.tsx';

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

/** What a chosen move asks of the plan: its storey is shown, and all of it, wherever that is. */
export function useShownMove(row: Row<'move'> | null, { storeys }: Survey): PlanFocus | null {
  const id = row?.id;
  useEffect(() => {
    const storey = row ? storeyOfPlaces(placesOf(row.body), storeys) : -1;
    if (storey >= 0) workbench.set({ storey });
    // Choosing a move asks for its storey once; whoever looks at another one then may.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id]);
  return useMemo(() => {
    const places = row ? placesOf(row.body) : [];
    if (!row || places.length < 2) return null;
    const [xs, zs] = [places.map(({ x }) => x), places.map(({ z }) => z)];
    return {
      key: row.id,
      area: { minX: Math.min(...xs), minZ: Math.min(...zs), maxX: Math.max(...xs), maxZ: Math.max(...zs) },
    };
  }, [row]);
}
