import type { Vec3 } from '@eskovan/core/document';
import type { FoundWay } from '@eskovan/core/wayfind';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { fileUrl } from '../../data/api.ts';
import { useProject } from '../../data/use-project.ts';
import { useSite, type SiteData } from '../../site/use-site.ts';
import type { BlockedWay, WayOrder } from '../../worker/ground.worker.ts';
import { startGround, type GroundHand } from './ground-worker.ts';

/** Ways through some places, as far as they are known. */
export interface Way {
  /** The one that is chosen, the first one until somebody does; or why there is none. */
  way: FoundWay | BlockedWay | null;
  /** All ways through the places, the shortest first; others than the first one that was found come later. */
  ways: readonly FoundWay[];
  /** Which of them it is. */
  chosen: number;
  choose: (index: number) => void;
  looking: boolean;
  /** Are other ways being looked for? */
  lookingOn: boolean;
  failed: boolean;
  /** Is it known where one can walk? */
  walkable: boolean;
}

const NONE: readonly FoundWay[] = [];

/** Ways through some places of the site, in their order; found by a worker that knows the site from one question to the next. */
export function useWay(places: readonly Vec3[], { survey }: SiteData): Way {
  const { project } = useProject();
  const site = useSite();
  const { walker, eyeHeight } = project.body;
  const [choice, setChoice] = useState<{ of: FoundWay | BlockedWay; way: FoundWay } | null>(null);
  const ask = useGround();
  const walkway = site?.walkway ?? null;
  const key = [site?.floor.sha256, walkway?.sha256, places, walker, eyeHeight];
  const order = (): WayOrder => ({
    floorUrl: fileUrl(site!.floor.sha256),
    walkwayUrl: fileUrl(walkway!.sha256),
    survey: { bounds: survey.bounds, storeys: survey.storeys.map(({ extent, rooms }) => ({ extent, rooms })) },
    places,
    walker: { ...walker, eyeHeight },
  });
  const asked = { staleTime: Infinity, retry: false };
  const { data, isFetching, isError } = useQuery({
    ...asked,
    queryKey: ['way', ...key],
    enabled: walkway !== null && places.length > 1,
    queryFn: () => ask<FoundWay | BlockedWay>((ground) => ground.find(order())),
  });
  const first = data?.found ? data : null;
  const others = useQuery({
    ...asked,
    queryKey: ['other ways', ...key],
    enabled: first !== null,
    // By a worker of its own: who adds another place must not wait for other ways through those before.
    queryFn: async ({ signal }) => {
      const { remote, stopped, stop } = startGround();
      signal.addEventListener('abort', stop, { once: true });
      try {
        return await Promise.race([remote.others(order(), first!), stopped]);
      } finally {
        stop();
      }
    },
  });
  const ways = useMemo(
    () => (first ? [first, ...(others.data ?? [])].sort((a, b) => a.length - b.length) : NONE),
    [first, others.data],
  );
  // A choice is one of ways through these places; nothing is changed under a hand that has made none.
  const chosen = choice && choice.of === data ? choice.way : first;
  return {
    way: chosen ?? data ?? null,
    ways,
    chosen: chosen ? ways.indexOf(chosen) : 0,
    choose: (index) => data && setChoice({ of: data, way: ways[index]! }),
    looking: isFetching,
    lookingOn: others.isFetching,
    failed: isError,
    walkable: walkway !== null,
  };
}

/** Asks one worker as long as the screen is there; after a failure the next question is asked of another one. */
function useGround() {
  const held = useRef<GroundHand | null>(null);
  const drop = () => {
    held.current?.stop();
    held.current = null;
  };
  useEffect(() => drop, []);
  return async <T>(question: (ground: GroundHand['remote']) => Promise<T>): Promise<T> => {
    held.current ??= startGround();
    const { remote, stopped } = held.current;
    try {
      return await Promise.race([question(remote), stopped]);
    } catch (error) {
      drop();
      throw error;
    }
  };
}
