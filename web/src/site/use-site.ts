import { ownActions, type SiteAction } from '@eskovan/core/action';
import type { MoveBody, Row, SiteBody } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { chosenLight, siteInput, type LightSetting } from '@eskovan/core/site';
import { surveySchema, unpackFooting, type Footing, type Survey } from '@eskovan/core/survey';
import { useQuery } from '@tanstack/react-query';
import { createContext, useContext, useMemo } from 'react';
import { useSame } from '../kit/index.ts';
import { useWorkbench } from '../desk/workbench.ts';
import { fetchFile } from '../data/api.ts';
import { liveRows } from '../data/changes.ts';
import { useProject } from '../data/use-project.ts';
import type { PictureScene } from '../picture/source.ts';
import { dimmedLights, withDimmed } from './dimmed-lights.ts';
import { nameStoreys } from './names.ts';
import { namedLight, type NamedLight } from './named-light.ts';
import { actionsOf, geometryOf, pictureScene, type LitFiles } from './picture-scene.ts';
import { useSiteState } from './site-state.ts';

/** The models of this project, in their order. */
export const useModels = (): Row<'model'>[] => liveRows(useProject().model);

/** The newest site of this project; one that is being computed shows the one before. */
export function useSite(): SiteBody | null {
  const { project } = useProject();
  return useSiteState((state) => (state.projectId === project.id ? state.site : null));
}

/** What the page itself needs of a site: plans to draw and floors to walk on. The geometry stays in the worker. */
export interface SiteData {
  survey: Survey;
  footing: Footing;
}

interface SiteDataState {
  data: SiteData | null;
  error: Error | null;
}

const SiteDataContext = createContext<SiteDataState>({ data: null, error: null });

/** Gives what is inside the data of the site: one and the same to all who ask. */
export const SiteDataProvider = SiteDataContext.Provider;

/** What the page needs of the site of the project that is open. */
export const useSiteData = (): SiteDataState => useContext(SiteDataContext);

/** Fetches the data of the site. Storeys carry the names that people gave them. */
export function useFetchedSite(): SiteDataState {
  const site = useSite();
  const { project } = useProject();
  const { data, error } = useQuery({
    queryKey: ['site-data', site?.survey.sha256, site?.floor.sha256],
    enabled: site !== null,
    staleTime: Infinity,
    placeholderData: (before: SiteData | undefined) => before,
    queryFn: async (): Promise<SiteData> => {
      const [json, triangles] = await Promise.all([fetchFile(site!.survey.sha256), fetchFile(site!.floor.sha256)]);
      return {
        survey: surveySchema.parse(JSON.parse(new TextDecoder().decode(json))),
        footing: unpackFooting(triangles),
      };
    },
  });
  const { storeyNames, roomNames } = project.body;
  const named = useMemo(
    () => (data && site ? { ...data, survey: nameStoreys(data.survey, storeyNames, roomNames) } : null),
    [data, site, storeyNames, roomNames],
  );
  return useMemo(() => ({ data: named, error }), [named, error]);
}

/** Names what the pictures of this project show; null while none of its models is ready. */
export function useGeometry(): string | null {
  const { model } = useProject();
  return useMemo(() => geometryOf(model), [model]);
}

/** What moves, and how; the same list as long as nothing of it changes. */
export function useActions(): readonly SiteAction[] {
  const { model, action } = useProject();
  return useMemo(() => actionsOf({ model, action }), [model, action]);
}

/** A light of the project, and the site in it where it has been computed. */
export interface ShownLight {
  setting: LightSetting;
  /** Names it; null while no model is ready. */
  key: string | null;
  /** Perhaps a first, rough one; null while there is none. */
  lit: LitFiles | null;
  /** Nothing of it is rough or still being gathered, nor what its lamps that dim give. */
  whole: boolean;
}

/** A light by name, and what each of its lamps that dim gives. */
interface LightNames {
  key: string;
  dimmed: readonly (NamedLight | null)[];
}

/** Finds the names of a light that has been computed, or will be, by its row; null while no model is ready. */
export function useLightNames(): (id: string | null | undefined) => LightNames | null {
  const { project, model, action, light } = useProject();
  return useMemo(() => {
    const input = siteInput(project.body, liveRows(model), READER);
    const lights = liveRows(light);
    // Hundreds of views are seen in a few lights.
    const known = new Map<string | null | undefined, LightNames>();
    return (id) => {
      if (!input) return null;
      let names = known.get(id);
      if (!names) {
        const setting = chosenLight(project.body, lights, id);
        const { key } = namedLight(project.body, input, setting);
        names = { key, dimmed: dimmedLights({ project, model, action }, input, setting) };
        known.set(id, names);
      }
      return names;
    };
  }, [project, model, action, light]);
}

/** @param id the named light that is meant; null or one that is gone: the project's own */
export function useLight(id: string | null | undefined): ShownLight {
  const { project, light } = useProject();
  const namesOf = useLightNames();
  const names = useMemo(() => namesOf(id), [namesOf, id]);
  const setting = useMemo(() => chosenLight(project.body, liveRows(light), id), [project.body, light, id]);
  const known = useSiteState((state) => (state.projectId === project.id ? state.lit : null));
  const own = (names && known?.[names.key]) ?? null;
  const dimmed = own && withDimmed(own, names!.dimmed, known!);
  // Until what lamps give is known, they light what they do undimmed.
  const lit = useSame(dimmed ?? own);
  const key = names?.key ?? null;
  const whole = dimmed?.first === false;
  return useMemo(() => ({ setting, key, lit, whole }), [setting, key, lit, whole]);
}

/**
 * What a picture is to show; null until it is known.
 * @param light the named light that it is seen in; null or absent: the project's own
 * @param body the move that is shown, which may move something of its own
 */
export function usePictureScene(light: string | null | undefined, body: MoveBody | null = null): PictureScene | null {
  const { project, model, action } = useProject();
  const alone = useWorkbench((state) => state.alone);
  // Nothing else of the state: a progress bar must not draw pictures.
  const looked = useSiteState((state) => state.projectId === project.id && state.looked);
  const { setting, lit } = useLight(light);
  const scene = useMemo(
    () => (looked ? pictureScene({ project, model, action }, setting, lit, alone) : null),
    [project, model, action, setting, lit, looked, alone],
  );
  // The same as long as nothing of it changes: a dragged camera loads no scene again.
  const own = useSame<readonly SiteAction[]>(body ? ownActions(body) : []);
  return useMemo(
    () => (scene && own.length > 0 ? { ...scene, actions: [...scene.actions, ...own] } : scene),
    [scene, own],
  );
}
