import {
  litBodySchema,
  siteBodySchema,
  type LitBody,
  type ProjectDocument,
  type SiteBody,
} from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { ownLight, siteInput, siteKey, type SiteInput } from '@eskovan/core/site';
import { SURVEY_ALGORITHM } from '@eskovan/core/survey';
import { useEffect, useMemo } from 'react';
import type { ZodType } from 'zod';
import { fileUrl, request } from '../data/api.ts';
import { liveRows } from '../data/changes.ts';
import { useWorkbench } from '../desk/workbench.ts';
import { loadPicture, usePictureState } from '../picture/client.ts';
import { computeSite } from './compute-site.ts';
import { readAgain } from './import-model.ts';
import { dimmedLights, withDimmed } from './dimmed-lights.ts';
import { namedLight, type NamedLight } from './named-light.ts';
import { pictureScene } from './picture-scene.ts';
import { onePageOfAll } from './site-lease.ts';
import { EMPTY_SITE, useSiteState } from './site-state.ts';

const set = useSiteState.setState;
const NOTHING: Partial<ProjectDocument> = {};

/** A placement that is still being set changes often: it is computed when it has rested, milliseconds. */
const REST = 700;
/** A first picture is waited for at most this long, milliseconds. */
const FIRST_PICTURE = 4000;

const sitePath = (projectId: string, key: string) => `/api/projects/${projectId}/sites/${key}`;
const litPath = (projectId: string, key: string) => `/api/projects/${projectId}/lit/${key}`;

/** What is kept at a path; null where nobody has computed it. */
const fetchKept = <T>(path: string, schema: ZodType<T>, signal?: AbortSignal): Promise<T | null> =>
  request('GET', path, { schema: schema.nullable(), ...(signal ? { signal } : {}) });

/** What of a document its lights hang on. */
type LitDocument = Pick<ProjectDocument, 'project' | 'model' | 'light' | 'action'>;

/** All lights of a project by name, its own one first, and at last what lamps that dim give; two that are the same are one. */
function lightsOf(document: LitDocument, input: SiteInput): NamedLight[] {
  const { project, light } = document;
  const settings = [ownLight(project.body), ...liveRows(light).map(({ body }) => body)];
  const whole = settings.map((setting) => namedLight(project.body, input, setting));
  const dimmed = settings.flatMap((setting) => dimmedLights(document, input, setting));
  const named = [...whole, ...dimmed.filter((one) => one !== null)];
  return [...new Map(named.map((one) => [one.key, one])).values()];
}

/** What was asked for before the screen stood. */
let early: { site: string; replies: Promise<[SiteBody | null, Record<string, LitBody>]> } | null = null;

/** Asks for a project's site the moment its document is here, and its picture with it: both while the screen is drawn. */
export function askForSite(document: ProjectDocument): void {
  const { project, model } = document;
  const input = siteInput(project.body, liveRows(model), READER);
  if (!input) return;
  const key = siteKey(input, SURVEY_ALGORITHM);
  const state = useSiteState.getState();
  // A document that is fetched again asks for nothing new.
  if (state.projectId === project.id && state.wanted === key) return;
  const setting = ownLight(project.body);
  const { key: light } = namedLight(project.body, input, setting);
  const dimmed = dimmedLights(document, input, setting);
  const names = [light, ...dimmed.flatMap((one) => (one ? [one.key] : []))];
  const reply = Promise.all(names.map((name) => fetchKept(litPath(project.id, name), litBodySchema))).then((bodies) =>
    Object.fromEntries(names.flatMap((name, i) => (bodies[i] ? [[name, bodies[i]]] : []))),
  );
  const replies = Promise.all([fetchKept(sitePath(project.id, key), siteBodySchema), reply]);
  reply.then(
    (known) => {
      const lit = known[light];
      const scene = lit ? pictureScene(document, setting, withDimmed(lit, dimmed, known) ?? lit, null) : null;
      if (scene) void loadPicture(scene, true);
    },
    () => {},
  );
  // Its failure is told where it is awaited.
  replies.catch(() => {});
  early = { site: key, replies };
}

/**
 * Keeps the site of the open project true, in all its lights: whenever models, placements, walker or lights change, what
 * belongs to them is fetched, or computed and kept for everybody. Mounted once, in the frame of the project screens.
 */
export function useSiteKeeper(projectId: string, document: ProjectDocument | undefined): void {
  // Most edits are about something else.
  const { project, model, light, action } = document ?? NOTHING;
  const input = useMemo(
    () => (project && model ? siteInput(project.body, liveRows(model), READER) : null),
    [project, model],
  );
  const key = useMemo(() => (input ? siteKey(input, SURVEY_ALGORITHM) : null), [input]);
  const lights = useMemo(
    () => (input && project && model && light && action ? lightsOf({ project, model, light, action }, input) : []),
    [input, project, model, light, action],
  );
  const lightKeys = lights
    .map((one) => one.key)
    .sort()
    .join();
  const tries = useSiteState((state) => state.tries);

  useEffect(() => {
    if (useSiteState.getState().projectId !== projectId) set({ ...EMPTY_SITE, projectId });
  }, [projectId]);

  useEffect(() => {
    for (const row of liveRows(model ?? [])) if (row.body.packed?.reader !== READER) void readAgain(row);
  }, [model]);

  const known = document !== undefined;
  useEffect(() => {
    if (!known) return;
    if (!key || !input) {
      set({ wanted: null, site: null, of: null, lit: {}, looked: true, working: null, error: null });
      return;
    }
    const before = useSiteState.getState();
    const controller = new AbortController();
    const { signal } = controller;
    const wanted = new Set(lights.map((one) => one.key));
    const lit = Object.fromEntries(Object.entries(before.lit).filter(([name]) => wanted.has(name)));
    set({ wanted: key, lit, looked: before.site !== null, working: null, error: null });
    const path = sitePath(projectId, key);
    const showSite = (site: SiteBody) => !signal.aborted && set({ site, of: key });
    const showLit = (name: string, one: LitBody) =>
      !signal.aborted && set((state) => ({ lit: { ...state.lit, [name]: one } }));
    const missing = () => {
      const state = useSiteState.getState();
      return {
        site: state.of !== key || (state.site?.first ?? true),
        lights: lights.filter((one) => state.lit[one.key]?.first !== false),
      };
    };
    /** Looks what others have computed. */
    const look = async () => {
      const { site, lights: absent } = missing();
      await Promise.all([
        site ? fetchKept(path, siteBodySchema, signal).then((body) => body && showSite(body)) : null,
        ...absent.map((one) =>
          fetchKept(litPath(projectId, one.key), litBodySchema, signal).then((body) => body && showLit(one.key, body)),
        ),
      ]);
    };
    const isThere = async () => {
      await look();
      const { site, lights: absent } = missing();
      return !site && absent.length === 0;
    };
    void (async () => {
      try {
        if (early?.site === key) {
          const [site, known] = await early.replies;
          if (site) showSite(site);
          for (const [name, one] of Object.entries(known)) if (wanted.has(name)) showLit(name, one);
          if (!signal.aborted) set({ looked: true });
        }
        early = null;
        const whole = await isThere();
        if (!signal.aborted) set({ looked: true });
        if (whole) return;
        await (before.site !== null ? new Promise((resolve) => setTimeout(resolve, REST)) : firstPicture(signal));
        if (signal.aborted) return;
        await onePageOfAll(path, {
          signal,
          isThere,
          work: () => {
            const { site, lights: absent } = missing();
            const looking = useWorkbench.getState().lightKey;
            return computeSite({
              models: input.models.map(({ packed, ...placed }) => ({ ...placed, url: fileUrl(packed) })),
              walker: input.walker,
              changes: input.storeys,
              measured: !site,
              lights: [...absent].sort((a, b) => Number(b.key === looking) - Number(a.key === looking)),
              signal,
              onProgress: (step, fraction) => !signal.aborted && set({ working: { step, fraction } }),
              onSite: async (body) => {
                await request('PUT', path, { schema: siteBodySchema, body, signal });
                showSite(body);
              },
              onLit: async (name, body) => {
                await request('PUT', litPath(projectId, name), { schema: litBodySchema, body, signal });
                showLit(name, body);
              },
            });
          },
        });
        if (!signal.aborted) set({ working: null });
      } catch (error) {
        if (!signal.aborted)
          set({ working: null, looked: true, error: error instanceof Error ? error.message : String(error) });
      }
    })();
    return () => controller.abort(new DOMException('Something newer is wanted', 'AbortError'));
    // The keys say all that input and lights do.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [projectId, key, lightKeys, known, tries]);
}

/** With two cores a first picture would wait for the measuring: it goes first, unless it takes long. */
async function firstPicture(signal: AbortSignal): Promise<void> {
  const until = Date.now() + FIRST_PICTURE;
  while (!signal.aborted && Date.now() < until && usePictureState.getState().loading)
    await new Promise((resolve) => setTimeout(resolve, 60));
}

/** Computes the site again after it has failed. */
export const retrySite = () => set(({ tries }) => ({ tries: tries + 1 }));
