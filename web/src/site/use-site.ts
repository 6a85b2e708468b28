import type { Row, SiteBody } from '@eskovan/core/document';
import { surveySchema, unpackFooting, type Footing, type Survey } from '@eskovan/core/survey';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useWorkbench } from '../desk/workbench.ts';
import { fetchFile } from '../data/api.ts';
import { liveRows } from '../data/changes.ts';
import { useProject } from '../data/use-project.ts';
import type { PictureScene } from '../picture/source.ts';
import { nameStoreys } from './names.ts';
import { pictureScene } from './picture-scene.ts';
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
        footing: unpackFooting(triangles),
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
  const { project, model, action } = useProject();
  const alone = useWorkbench((state) => state.alone);
  // Nothing else of the state: a progress bar must not draw pictures.
  const looked = useSiteState((state) => state.projectId === project.id && state.looked);
  const lit = useSiteState(({ projectId, site, of, wanted, wantedLight }) =>
    projectId === project.id && site?.scene && (of === wanted || (wantedLight !== null && site.light === wantedLight))
      ? site
      : null,
  );
  return useMemo(
    () => (looked ? pictureScene({ project, model, action }, lit, alone) : null),
    [project, model, action, lit, looked, alone],
  );
}
