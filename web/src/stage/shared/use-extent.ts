import type { Bounds } from '@eskovan/core/document';
import { joinBounds } from '@eskovan/core/geometry';
import { placeBounds } from '@eskovan/core/site';
import { useMemo } from 'react';
import { worthSeeing } from '../../picture/eye.ts';
import { useModels, useSiteData } from '../../site/use-site.ts';

/** Extent of what is worth seeing of the whole site, metres; null without models. */
export function useExtent(): Bounds | null {
  const models = useModels();
  const survey = useSiteData().data?.survey ?? null;
  return useMemo(() => {
    const all = joinBounds(models.map(({ body }) => placeBounds(body.bounds, body.placement)));
    return all && worthSeeing(all, survey);
  }, [models, survey]);
}
