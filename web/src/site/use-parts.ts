import { useQuery } from '@tanstack/react-query';
import { SiteMotion } from '@eskovan/core/action';
import { useMemo } from 'react';
import { listMovements, listParts, usePictureState } from '../picture/client.ts';
import type { PartInfo } from '../worker/parts.ts';
import { usePictureScene } from './use-site.ts';

/** All named parts of the site that the picture shows; none until it is there as a whole. */
export function useParts(wanted = true): readonly PartInfo[] {
  const scene = usePictureScene();
  const loaded = usePictureState((state) => state.loaded);
  const { data } = useQuery({
    queryKey: ['parts', JSON.stringify(scene?.source)],
    enabled: wanted && scene !== null && loaded !== null,
    staleTime: Infinity,
    placeholderData: (before: PartInfo[] | undefined) => before,
    queryFn: () => listParts(),
  });
  return data ?? NONE;
}
const NONE: readonly PartInfo[] = [];

/** What moves, as far as the page needs it; null until it is known, and where nothing does. */
export function useSiteMotion(wanted: boolean): SiteMotion | null {
  const scene = usePictureScene();
  const loaded = usePictureState((state) => state.loaded);
  const parts = useParts(wanted);
  const actions = scene?.actions ?? NO_ACTIONS;
  const { data } = useQuery({
    queryKey: ['movements', JSON.stringify(scene?.source)],
    enabled: wanted && actions.length > 0 && loaded !== null,
    staleTime: Infinity,
    queryFn: () => listMovements(),
  });
  return useMemo(
    () => (data && parts.length > 0 && actions.length > 0 ? new SiteMotion({ ...data, parts }, actions) : null),
    [data, parts, actions],
  );
}
const NO_ACTIONS: NonNullable<ReturnType<typeof usePictureScene>>['actions'] = [];
