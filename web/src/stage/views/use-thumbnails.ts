import type { Row } from '@eskovan/core/document';
import { useEffect } from 'react';
import { useProject } from '../../data/use-project.ts';
import { usePictureState } from '../../picture/client.ts';
import { sceneKey, type PictureScene } from '../../picture/source.ts';
import { useLightNames } from '../../site/use-site.ts';
import { drawThumbnail } from '../shared/keep-view.ts';
import { useSceneIn } from '../../site/use-scene-in.ts';

/**
 * Views that came without a picture (from a seed, or after an update) get theirs: those in the light that is shown from
 * the worker that shows it, others aside. Light belongs in it.
 * @param scene what is shown, in the light that is shown
 */
export function useThumbnails(
  views: readonly Row<'view'>[],
  scene: PictureScene | null,
  shown: string | null | undefined,
): void {
  const document = useProject();
  const loaded = usePictureState((state) => state.loaded);
  const namesOf = useLightNames();
  const sceneIn = useSceneIn();
  useEffect(() => {
    const key = sceneKey(scene);
    if (scene?.source.kind !== 'lit' || key === null || loaded !== key) return;
    const { body } = document.project;
    const shownKey = namesOf(shown)?.key;
    for (const view of views) {
      if (view.body.thumbnail) continue;
      if (namesOf(view.body.light)?.key === shownKey) {
        void drawThumbnail(view, body, { shown: key });
        continue;
      }
      const own = sceneIn(view.body.light);
      if (own) void drawThumbnail(view, body, { aside: own });
    }
  }, [views, loaded, scene, shown, document, namesOf, sceneIn]);
}
