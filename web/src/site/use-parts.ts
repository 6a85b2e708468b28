import { useQuery } from '@tanstack/react-query';
import { SiteMotion, type MovableSite, type SiteAction } from '@eskovan/core/action';
import { useMemo } from 'react';
import { listMovements, listParts, usePictureState } from '../picture/client.ts';
import type { PartInfo } from '../worker/parts.ts';
import { useActions, useGeometry } from './use-site.ts';

/** All named parts of the site that the picture shows; none until it is there as a whole. */
export function useParts(wanted = true): readonly PartInfo[] {
  const geometry = useGeometry();
  const held = usePictureState((state) => state.geometry);
  const { data } = useQuery({
    queryKey: ['parts', geometry],
    enabled: wanted && geometry !== null && held === geometry,
    staleTime: Infinity,
    placeholderData: (before: PartInfo[] | undefined) => before,
    queryFn: () => theirs(listParts(geometry!)),
  });
  return data ?? NONE;
}
const NONE: readonly PartInfo[] = [];

/** The worker may hold something newer by the time it answers: then this is asked again. */
async function theirs<T>(answer: Promise<T | null>): Promise<T> {
  const value = await answer;
  if (value === null) throw new Error('The picture shows another site by now.');
  return value;
}

/** What of the site can move and does, as it is sent to workers; null until it is known, and where nothing does. */
export interface Moving {
  site: Pick<MovableSite, 'joints' | 'movements'>;
  actions: readonly SiteAction[];
}

/** Parts and what moves of them, each the same as long as nothing of it changes. */
export function useMoving(wanted: boolean): { parts: readonly PartInfo[]; moving: Moving | null } {
  const geometry = useGeometry();
  const held = usePictureState((state) => state.geometry);
  const parts = useParts(wanted);
  const actions = useActions();
  const { data } = useQuery({
    queryKey: ['movements', geometry],
    enabled: wanted && actions.length > 0 && geometry !== null && held === geometry,
    staleTime: Infinity,
    queryFn: () => theirs(listMovements(geometry!)),
  });
  const moving = useMemo(
    () => (wanted && data && parts.length > 0 && actions.length > 0 ? { site: data, actions } : null),
    [wanted, data, parts, actions],
  );
  return { parts, moving };
}

/** What moves, as far as the page needs it; null until it is known, and where nothing does. */
export function useSiteMotion(wanted: boolean): SiteMotion | null {
  const { parts, moving } = useMoving(wanted);
  return useMemo(() => moving && new SiteMotion({ ...moving.site, parts }, moving.actions), [moving, parts]);
}
