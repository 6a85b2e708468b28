import type { Row } from '@eskovan/core/document';
import { chosenLight } from '@eskovan/core/site';
import { useEffect } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { usePictureState } from '../../picture/client.ts';
import { sceneKey, type PictureScene } from '../../picture/source.ts';
import { pictureScene } from '../../site/picture-scene.ts';
import { useSiteState } from '../../site/site-state.ts';
import { useLightKeys } from '../../site/use-site.ts';
import { drawThumbnail } from '../shared/keep-view.ts';

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
  const lit = useSiteState((state) => (state.projectId === document.project.id ? state.lit : null));
  const keyOf = useLightKeys();
  useEffect(() => {
    if (scene?.source.kind !== 'lit' || loaded !== sceneKey(scene)) return;
    const { body } = document.project;
    const shownKey = keyOf(shown);
    for (const view of views) {
      if (view.body.thumbnail) continue;
      const key = keyOf(view.body.light);
      const own = key === null ? undefined : lit?.[key];
      if (key === shownKey) void drawThumbnail(view, body, null);
      else if (own && !own.first) {
        const setting = chosenLight(body, liveRows(document.light), view.body.light);
        void drawThumbnail(view, body, pictureScene(document, setting, own, null));
      }
    }
  }, [views, loaded, scene, shown, lit, document, keyOf]);
}
