import { aspectOf, frameOf, type Row, type ViewBody } from '@eskovan/core/document';
import { useMemo } from 'react';
import { useProject } from '../../data/use-project.ts';
import { sizeAcross, type AsideWish } from '../../picture/source.ts';
import { useSceneIn } from '../../site/use-scene-in.ts';

/** What all compared views take from the first one, so that the rest can be judged. */
export type Link = 'nothing' | 'lens' | 'light' | 'pose';

/** A view that is compared. */
export interface Compared {
  row: Row<'view'>;
  /** What it is drawn from; null while its light is not whole. */
  wish: AsideWish | null;
}

/** Width of a compared picture, pixels. */
const WIDTH = 800;

const linked = (body: ViewBody, first: ViewBody, link: Link): Pick<ViewBody, 'pose' | 'lens' | 'light'> => ({
  pose: link === 'pose' ? first.pose : body.pose,
  lens: link === 'lens' ? first.lens : body.lens,
  light: link === 'light' ? first.light : body.light,
});

/** Some views as they are compared. */
export function useCompared(rows: readonly Row<'view'>[], link: Link): readonly Compared[] {
  const { project } = useProject();
  const sceneIn = useSceneIn();
  return useMemo(
    () =>
      rows.map((row) => {
        const { pose, lens, light } = linked(row.body, rows[0]!.body, link);
        const scene = sceneIn(light);
        const size = sizeAcross(WIDTH, aspectOf({ frame: frameOf(row.body, project.body) }));
        return { row, wish: scene && { scene, pose, lens, size } };
      }),
    [rows, link, project.body, sceneIn],
  );
}
