import { chosenLight } from '@eskovan/core/site';
import { useCallback } from 'react';
import { liveRows } from '../data/changes.ts';
import { useProject } from '../data/use-project.ts';
import type { PictureScene } from '../picture/source.ts';
import { pictureScene } from './picture-scene.ts';
import { useSiteState } from './site-state.ts';
import { useLightKeys } from './use-site.ts';

/** What a picture is to show in any light of the project; null while that light is not whole. */
export function useSceneIn(): (light: string | null | undefined) => PictureScene | null {
  const document = useProject();
  const lit = useSiteState((state) => (state.projectId === document.project.id ? state.lit : null));
  const keyOf = useLightKeys();
  return useCallback(
    (light) => {
      const key = keyOf(light);
      const own = key === null ? undefined : lit?.[key];
      if (!own || own.first) return null;
      const setting = chosenLight(document.project.body, liveRows(document.light), light);
      return pictureScene(document, setting, own, null);
    },
    [document, lit, keyOf],
  );
}
