import type { Vec3 } from '@eskovan/core/document';
import type { FoundWay } from '@eskovan/core/wayfind';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { fileUrl } from '../../data/api.ts';
import { useProject } from '../../data/use-project.ts';
import { useSite, type SiteData } from '../../site/use-site.ts';
import type { BlockedWay } from '../../worker/ground.worker.ts';
import { startGround, type GroundHand } from './ground-worker.ts';

interface Way {
  way: FoundWay | BlockedWay | null;
  looking: boolean;
  failed: boolean;
  /** Is it known where one can walk? */
  walkable: boolean;
}

/** The way through some places of the site, in their order; found by a worker that knows the site from one question to the next. */
export function useWay(places: readonly Vec3[], { survey }: SiteData): Way {
  const { project } = useProject();
  const site = useSite();
  const { walker, eyeHeight } = project.body;
  const asked = useRef<GroundHand | null>(null);
  useEffect(
    () => () => {
      asked.current?.stop();
      asked.current = null;
    },
    [],
  );
  const walkway = site?.walkway ?? null;
  const { data, isFetching, isError } = useQuery({
    queryKey: ['way', site?.floor.sha256, walkway?.sha256, places, walker, eyeHeight],
    enabled: walkway !== null && places.length > 1,
    staleTime: Infinity,
    retry: false,
    queryFn: async (): Promise<FoundWay | BlockedWay> => {
      asked.current ??= startGround();
      const { remote, stopped } = asked.current;
      const found = remote.find({
        floorUrl: fileUrl(site!.floor.sha256),
        walkwayUrl: fileUrl(walkway!.sha256),
        survey: { bounds: survey.bounds, storeys: survey.storeys.map(({ extent, rooms }) => ({ extent, rooms })) },
        places,
        walker: { ...walker, eyeHeight },
      });
      try {
        return await Promise.race([found, stopped]);
      } catch (error) {
        // The next question is asked of another one.
        asked.current?.stop();
        asked.current = null;
        throw error;
      }
    },
  });
  return { way: data ?? null, looking: isFetching, failed: isError, walkable: walkway !== null };
}
