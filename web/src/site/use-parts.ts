import { useQuery } from '@tanstack/react-query';
import { listParts, usePictureState } from '../picture/client.ts';
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
