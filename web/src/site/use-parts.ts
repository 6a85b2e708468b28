import { useQuery } from '@tanstack/react-query';
import { SiteMotion } from '@eskovan/core/action';
import { useMemo } from 'react';
import { listMovements, listParts, usePictureState } from '../picture/client.ts';
import type { PartInfo } from '../worker/parts.ts';
import { sourceKey } from '../picture/source.ts';
import { usePictureScene } from './use-site.ts';

/** All named parts of the site that the picture shows; none until it is there as a whole. */
export function useParts(wanted = true): readonly PartInfo[] {
  const scene = usePictureScene();
  const source = scene ? sourceKey(scene.source) : null;
  const held = usePictureState((state) => state.source);
  const { data } = useQuery({
    queryKey: ['parts', source],
    enabled: wanted && source !== null && held === source,
    staleTime: Infinity,
    placeholderData: (before: PartInfo[] | undefined) => before,
    queryFn: () => theirs(listParts(source!)),
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
  const scene = usePictureScene();
  const source = scene ? sourceKey(scene.source) : null;
  const held = usePictureState((state) => state.source);
  const parts = useParts(wanted);
  const actions = scene?.actions ?? NO_ACTIONS;
  const { data } = useQuery({
    queryKey: ['movements', source],
    enabled: wanted && actions.length > 0 && source !== null && held === source,
    staleTime: Infinity,
    queryFn: () => theirs(listMovements(source!)),
  });
  return useMemo(
    () => (data && parts.length > 0 && actions.length > 0 ? new SiteMotion({ ...data, parts }, actions) : null),
    [data, parts, actions],
  );
}
const NO_ACTIONS: NonNullable<ReturnType<typeof usePictureScene>>['actions'] = [];
