import type { Row, SiteBody } from '@eskovan/core/document';
import { READER } from '@eskovan/core/format';
import { siteSun, type Dress } from '@eskovan/core/site';
import { FloorIndex, surveySchema, type Survey } from '@eskovan/core/survey';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useWorkbench } from '../app/workbench.ts';
import { fetchFile, fileUrl } from '../data/api.ts';
import { liveRows } from '../data/row-change.ts';
import { useProject } from '../data/use-project.ts';
import type { PictureScene } from '../picture/source.ts';
import { nameStoreys } from './names.ts';
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
  floor: FloorIndex;
}

/** Storeys carry the names that people gave them. */
export function useSiteData(): { data: SiteData | null; error: Error | null } {
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
        floor: new FloorIndex(new Float32Array(triangles)),
      };
    },
  });
  const { storeyNames, roomNames } = project.body;
  const named = useMemo(
    () => (data && site ? { ...data, survey: nameStoreys(data.survey, storeyNames, roomNames) } : null),
    [data, site, storeyNames, roomNames],
  );
  return { data: named, error };
}

/** What the picture is to show; null until it is known. */
export function usePictureScene(): PictureScene | null {
  const { project, model } = useProject();
  const alone = useWorkbench((state) => state.alone);
  const { sun: setting, look, exposure } = project.body;
  // Nothing else of the state: a progress bar must not draw pictures.
  const looked = useSiteState((state) => state.projectId === project.id && state.looked);
  const lit = useSiteState(({ projectId, site, of, wanted }) =>
    projectId === project.id && of === wanted ? (site?.scene?.sha256 ?? null) : null,
  );
  return useMemo(() => {
    const shown = liveRows(model).filter(({ body }) => !body.hidden);
    const ready = shown.flatMap(({ id, body }) =>
      body.packed?.reader === READER ? [{ id, url: fileUrl(body.packed.file.sha256), placement: body.placement }] : [],
    );
    if (!looked || ready.length === 0) return null;
    const parts = Object.fromEntries(shown.map(({ id, body }) => [id, body.parts]));
    const dress: Dress = { look, exposure, parts, ...(alone ? { alone } : {}) };
    const sun = siteSun(setting);
    return lit
      ? { source: { kind: 'lit', url: fileUrl(lit) }, dress, sun }
      : { source: { kind: 'plain', models: ready }, dress, sun };
  }, [model, look, exposure, setting, lit, looked, alone]);
}
