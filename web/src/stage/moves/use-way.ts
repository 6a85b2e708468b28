import type { Vec3 } from '@eskovan/core/document';
import type { FoundWay } from '@eskovan/core/wayfind';
import { useQuery } from '@tanstack/react-query';
import * as Comlink from 'comlink';
import { useEffect, useRef } from 'react';
import { fileUrl } from '../../data/api.ts';
import { useProject } from '../../data/use-project.ts';
import { useSite, type SiteData } from '../../site/use-site.ts';
import type { BlockedWay, WayWorker } from '../../worker/way.worker.ts';

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
  const asked = useRef<Asked | null>(null);
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
      asked.current ??= startWorker();
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

interface Asked {
  remote: Comlink.Remote<WayWorker>;
  /** Never comes, unless the worker breaks or is stopped. */
  stopped: Promise<never>;
  stop: () => void;
}

function startWorker(): Asked {
  const worker = new Worker(new URL('../../worker/way.worker.ts', import.meta.url), { type: 'module', name: 'way' });
  let stop = () => {};
  const stopped = new Promise<never>((_, reject) => {
    stop = () => {
      worker.terminate();
      // Whoever still waits must not wait for ever.
      reject(new Error('The worker that finds ways has stopped.'));
    };
    worker.addEventListener('error', stop);
  });
  stopped.catch(() => undefined);
  return { remote: Comlink.wrap<WayWorker>(worker), stopped, stop };
}
