import { siteBodySchema, type ProjectDocument, type SiteBody } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { lightKey, siteInput, siteKey } from '@eskovan/core/site';
import { SURVEY_ALGORITHM } from '@eskovan/core/survey';
import { useEffect, useMemo } from 'react';
import { ApiError, fileUrl, request } from '../data/api.ts';
import { liveRows } from '../data/changes.ts';
import { loadPicture, usePictureState } from '../picture/client.ts';
import { computeSite } from './compute-site.ts';
import { readAgain } from './import-model.ts';
import { pictureScene } from './picture-scene.ts';
import { onePageOfAll } from './site-lease.ts';
import { EMPTY_SITE, useSiteState } from './site-state.ts';

const set = useSiteState.setState;

/** A placement that is still being set changes often: it is computed when it has rested, milliseconds. */
const REST = 700;
/** A first picture is waited for at most this long, milliseconds. */
const FIRST_PICTURE = 4000;

const pathOf = (projectId: string, key: string) => `/api/projects/${projectId}/sites/${key}`;

/** A kept site; null where nobody has computed it. */
const fetchSite = (path: string, signal?: AbortSignal): Promise<SiteBody | null> =>
  request('GET', path, { schema: siteBodySchema, ...(signal ? { signal } : {}) }).catch((error: unknown) => {
    if (error instanceof ApiError && error.status === 404) return null;
    throw error;
  });

/** What was asked for before the screen stood. */
let early: { path: string; reply: Promise<SiteBody | null> } | null = null;

/** Asks for a project's site the moment its document is here, and its picture with it: both while the screen is drawn. */
export function askForSite(document: ProjectDocument): void {
  const { project, model } = document;
  const input = siteInput(project.body, liveRows(model), READER);
  if (!input) return;
  const key = siteKey(input, SURVEY_ALGORITHM);
  const state = useSiteState.getState();
  // A document that is fetched again asks for nothing new.
  if (state.projectId === project.id && state.wanted === key) return;
  const path = pathOf(project.id, key);
  const reply = fetchSite(path);
  reply.then(
    (site) => {
      const scene = site?.scene ? pictureScene(document, site, null) : null;
      if (scene) void loadPicture(scene, true);
    },
    // Its failure is told where it is awaited.
    () => {},
  );
  early = { path, reply };
}

/**
 * Keeps the site of the open project true: whenever models, placements, walker or sun change, the site that belongs
 * to them is fetched, or computed and kept for everybody. Mounted once, in the frame of the project screens.
 */
export function useSiteKeeper(projectId: string, document: ProjectDocument | undefined): void {
  const input = useMemo(
    () => (document ? siteInput(document.project.body, liveRows(document.model), READER) : null),
    [document],
  );
  const key = useMemo(() => (input ? siteKey(input, SURVEY_ALGORITHM) : null), [input]);
  const tries = useSiteState((state) => state.tries);

  useEffect(() => {
    if (useSiteState.getState().projectId !== projectId) set({ ...EMPTY_SITE, projectId });
  }, [projectId]);

  useEffect(() => {
    for (const row of liveRows(document?.model ?? [])) if (row.body.packed?.reader !== READER) void readAgain(row);
  }, [document]);

  const known = document !== undefined;
  useEffect(() => {
    if (!known) return;
    if (!key || !input) {
      set({ wanted: null, wantedLight: null, site: null, of: null, looked: true, working: null, error: null });
      return;
    }
    const before = useSiteState.getState();
    const controller = new AbortController();
    const { signal } = controller;
    const light = lightKey(input, SURVEY_ALGORITHM);
    set({ wanted: key, wantedLight: light, looked: before.site !== null, working: null, error: null });
    const path = pathOf(projectId, key);
    const show = (site: SiteBody) => !signal.aborted && set({ site, of: key, looked: true });
    void (async () => {
      try {
        const kept = await (early?.path === path ? early.reply : fetchSite(path, signal));
        early = null;
        if (kept) show(kept);
        if (kept?.scene && !kept.first) return;
        if (!signal.aborted) set({ looked: true });
        await (before.site !== null ? new Promise((resolve) => setTimeout(resolve, REST)) : firstPicture(signal));
        if (signal.aborted) return;
        await onePageOfAll(path, {
          signal,
          isThere: async () => {
            const site = await fetchSite(path, signal);
            if (site) show(site);
            return site !== null && site.scene !== null && !site.first;
          },
          work: () =>
            computeSite({
              models: input.models.map(({ id, packed, placement }) => ({ id, url: fileUrl(packed), placement })),
              walker: input.walker,
              changes: input.storeys,
              sun: input.sun,
              light,
              before: before.site,
              signal,
              onProgress: (step, fraction) => !signal.aborted && set({ working: { step, fraction } }),
              onSite: async (site) => {
                await request('PUT', path, { schema: siteBodySchema, body: site, signal });
                show(site);
              },
            }),
        });
        if (!signal.aborted) set({ working: null });
      } catch (error) {
        if (!signal.aborted)
          set({ working: null, looked: true, error: error instanceof Error ? error.message : String(error) });
      }
    })();
    return () => controller.abort(new DOMException('Something newer is wanted', 'AbortError'));
    // The key says all that the input does.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [projectId, key, known, tries]);
}

/** With two cores a first picture would wait for the measuring: it goes first, unless it takes long. */
async function firstPicture(signal: AbortSignal): Promise<void> {
  const until = Date.now() + FIRST_PICTURE;
  while (!signal.aborted && Date.now() < until && usePictureState.getState().loading)
    await new Promise((resolve) => setTimeout(resolve, 60));
}

/** Computes the site again after it has failed. */
export const retrySite = () => set(({ tries }) => ({ tries: tries + 1 }));
