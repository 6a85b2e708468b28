import { useQuery } from '@tanstack/react-query';
import { SiteMotion } from '@eskovan/core/action';
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

/** What moves, as far as the page needs it; null until it is known, and where nothing does. */
export function useSiteMotion(wanted: boolean): SiteMotion | null {
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
  return useMemo(
    () => (data && parts.length > 0 && actions.length > 0 ? new SiteMotion({ ...data, parts }, actions) : null),
    [data, parts, actions],
  );
}
