import { aspectOf, frameOf, type Row, type ViewBody } from '@eskovan/core/document';
import { useEffect, useMemo, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { drawAside } from '../../picture/aside.ts';
import { sceneKey, type AsideWish } from '../../picture/source.ts';
import { useSceneIn } from './use-scene-in.ts';

/** What all compared views take from the first one, so that the rest can be judged. */
export type Link = 'nothing' | 'lens' | 'light' | 'pose';

/** A view that is compared. */
export interface Compared {
  row: Row<'view'>;
  aspect: number;
  /** Its picture; null until it is drawn. */
  url: string | null;
}

/** Width of a compared picture, pixels. */
const WIDTH = 800;

const linked = (body: ViewBody, first: ViewBody, link: Link): Pick<ViewBody, 'pose' | 'lens' | 'light'> => ({
  pose: link === 'pose' ? first.pose : body.pose,
  lens: link === 'lens' ? first.lens : body.lens,
  light: link === 'light' ? first.light : body.light,
});

/** Pictures of some views, drawn one after the other while nobody moves about. */
export function useCompared(rows: readonly Row<'view'>[], link: Link): readonly Compared[] {
  const { project } = useProject();
  const sceneIn = useSceneIn();
  const [urls, setUrls] = useState<ReadonlyMap<string, string>>(new Map());
  const wishes = useMemo(
    () =>
      rows.map((row) => {
        const aspect = aspectOf({ frame: frameOf(row.body, project.body) });
        const { pose, lens, light } = linked(row.body, rows[0]!.body, link);
        const scene = sceneIn(light);
        const size = { width: WIDTH, height: Math.max(2, Math.round(WIDTH / aspect)) };
        const wish: AsideWish | null = scene && { scene, pose, lens, size };
        return { row, aspect, wish, key: wish && JSON.stringify([sceneKey(wish.scene), pose, lens, size]) };
      }),
    [rows, link, project.body, sceneIn],
  );
  useEffect(() => {
    let gone = false;
    const draw = async () => {
      for (const { wish, key } of wishes) {
        if (gone) return;
        if (!wish || !key || drawn.has(key)) continue;
        // One that cannot be drawn leaves its place to the small picture.
        const blob = await drawAside(wish).catch(() => null);
        if (blob) keep(key, URL.createObjectURL(blob));
        if (!gone) setUrls(new Map(drawn));
      }
    };
    setUrls(new Map(drawn));
    void draw();
    return () => void (gone = true);
  }, [wishes]);
  return wishes.map(({ row, aspect, key }) => ({ row, aspect, url: (key && urls.get(key)) ?? null }));
}

/** Pictures drawn so far, the newest last: coming back to them costs nothing. */
const drawn = new Map<string, string>();
const MOST = 16;

function keep(key: string, url: string): void {
  drawn.set(key, url);
  for (const [oldest, old] of drawn) {
    if (drawn.size <= MOST) break;
    URL.revokeObjectURL(old);
    drawn.delete(oldest);
  }
}
