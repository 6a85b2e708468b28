import { skipToken, useQuery } from '@tanstack/react-query';
import { drawAside } from './aside.ts';
import type { AsideWish } from './source.ts';

/**
 * A picture beside the one that is shown; null until it is drawn. Each is drawn once, and kept for coming back to it.
 * @param meanwhile until it is drawn, the one before it stands for it
 */
export function useAsidePicture(wish: AsideWish | null, meanwhile = false): Blob | null {
  const { data } = useQuery({
    queryKey: ['aside', wish],
    queryFn: wish ? () => drawAside(wish) : skipToken,
    staleTime: Infinity,
    ...(meanwhile && { placeholderData: (before: Blob | undefined) => before }),
    // One that cannot be drawn leaves its place empty, or to another picture.
    retry: false,
  });
  return data ?? null;
}
