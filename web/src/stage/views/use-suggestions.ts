import type { Lens } from '@eskovan/core/document';
import { chosenLight, siteLight } from '@eskovan/core/site';
import { thingsOf, type Suggestion } from '@eskovan/core/suggest';
import { useQuery } from '@tanstack/react-query';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useParts } from '../../site/use-parts.ts';
import { useSite, useSiteData } from '../../site/use-site.ts';
import { handOf } from '../../worker/hand.ts';
import type { SuggestOrder, SuggestWorker } from '../../worker/suggest.worker.ts';
import { startWorker } from '../../worker/start-worker.ts';

/** Suggested views of the site as it is; worked out once, and again when something of it changes. */
export function useSuggestions(
  lens: Lens,
  aspect: number,
  eyeHeight: number,
  light: string | null | undefined,
): { suggestions: readonly Suggestion[] | null; failed: boolean } {
  const document = useProject();
  const { project } = document;
  const site = useSite();
  const { data } = useSiteData();
  const parts = useParts();
  const setting = chosenLight(project.body, liveRows(document.light), light);
  const { sun } = siteLight(project.body, setting);
  const wish = { lens, aspect, eyeHeight };
  const { data: suggestions, isError } = useQuery({
    queryKey: ['suggested', site?.survey.sha256, site?.floor.sha256, parts.length, sun, wish],
    enabled: site !== null && data !== null && parts.length > 0,
    staleTime: Infinity,
    retry: false,
    queryFn: () =>
      asked({
        floorUrl: fileUrl(site!.floor.sha256),
        survey: data!.survey,
        bounds: site!.bounds,
        things: thingsOf(parts),
        sun: sun[1] > 0 ? [...sun] : null,
        wish,
      }),
  });
  return { suggestions: suggestions ?? null, failed: isError };
}

/** Asks a worker, which ends with its answer. */
async function asked(order: SuggestOrder): Promise<Suggestion[]> {
  const hand = handOf<SuggestWorker>(startWorker('suggest'), 'The worker of suggestions');
  try {
    return await Promise.race([hand.remote.suggest(order), hand.stopped]);
  } finally {
    hand.stop();
  }
}
