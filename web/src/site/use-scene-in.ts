import { chosenLight } from '@eskovan/core/site';
import { useCallback } from 'react';
import { liveRows } from '../data/changes.ts';
import { useProject } from '../data/use-project.ts';
import type { PictureScene } from '../picture/source.ts';
import { withDimmed } from './dimmed-lights.ts';
import { pictureScene } from './picture-scene.ts';
import { useSiteState } from './site-state.ts';
import { useLightNames } from './use-site.ts';

/**
 * What a picture is to show in any light of the project; null while that light is not whole.
 * @param rough a picture that is looked at now, and drawn anew later: the first, rough light will do
 */
export function useSceneIn(rough = false): (light: string | null | undefined) => PictureScene | null {
  // Nothing else of the project: a function that stays lets others keep what they made of its scenes.
  const { project, model, action, light: lights } = useProject();
  const known = useSiteState((state) => (state.projectId === project.id ? state.lit : null));
  const namesOf = useLightNames();
  return useCallback(
    (light) => {
      const names = namesOf(light);
      const own = names && known?.[names.key];
      if (!own || (own.first && !rough)) return null;
      const lit = withDimmed(own, names.dimmed, known);
      const setting = chosenLight(project.body, liveRows(lights), light);
      return lit && pictureScene({ project, model, action }, setting, lit, null);
    },
    [project, model, action, lights, known, namesOf, rough],
  );
}
