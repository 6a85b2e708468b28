import { movesParts } from '@eskovan/core/action';
import type { PromisedObject } from '@eskovan/core/document';
import { needsParts } from '@eskovan/core/move';
import { useEffect, useMemo, useRef, useState } from 'react';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { loadPicture, usePictureState } from '../../picture/client.ts';
import { useKept } from '../../kit/index.ts';
import { useActions, useGeometry, usePictureScene, useSiteData } from '../../site/use-site.ts';
import type { WishedFor } from '../../picture/ahead.ts';
import type { ReelFilmSource } from '../../worker/reel-film.ts';
import type { OrderedShot, ReelOrder } from '../../worker/reel-work.ts';
import type { SiteOrder } from '../../worker/site-order.ts';
import { useSiteOrder } from '../shared/use-site-order.ts';
import { useClipMotions } from './clip-motions.ts';
import type { OpenReel } from './open-reel.ts';
import { clearFacts, setFacts, useReelFacts } from './reel-facts.ts';
import { ReelLink } from './reel-link.ts';
import type { ReelScenes } from './use-reel-scenes.ts';

/** Everything that a film of the reel is made from. */
export type FilmParts = Pick<ReelFilmSource, 'site' | 'order' | 'scenes'>;

/**
 * Lets workers know the reel, and learns from them what follows from it.
 * @param of the open reel, or one that it is compared with
 * @param rows its shots: the same list as long as none of them changes, whatever else of the project does
 */
export function useReelWork(
  open: OpenReel | null,
  rows: OpenReel['shots'],
  scenes: ReelScenes,
  of: WishedFor = 'open',
): { link: ReelLink | null; film: FilmParts | null } {
  const { project, move, view } = useProject();
  const [link, setLink] = useState<ReelLink | null>(null);
  useEffect(() => {
    const made = new ReelLink(of);
    setLink(made);
    return () => {
      made.close();
      if (of === 'open') clearFacts();
      else setFacts({ besideKeys: [] });
    };
  }, [of]);

  const motions = useClipMotions(rows);
  const shots = useMemo(
    () =>
      rows.map(({ id, name, body }): OrderedShot => {
        const { use } = body;
        const row = use.kind === 'move' ? move.find((one) => one.id === use.move && one.deleted === null) : undefined;
        const still = use.kind === 'view' ? view.find((one) => one.id === use.view && one.deleted === null) : undefined;
        return {
          id,
          name,
          body,
          move: row ? { id: row.id, body: row.body } : null,
          view: still ? { pose: still.body.pose, lens: still.body.lens } : null,
          scene: scenes.sceneOf(id),
          motion: use.kind === 'clip' ? (motions[use.file.sha256] ?? null) : null,
          number: still && body.numbered ? liveRows(view).indexOf(still) + 1 : null,
        };
      }),
    [rows, move, view, scenes, motions],
  );
  const promised = useKept((of === 'open' && open?.row.body.promisedObjects) || NONE);
  const site = useReelSite(shots, promised.length > 0);
  const [sited, setSited] = useState<SiteOrder | null>(null);
  useEffect(() => {
    if (!link || !site) return;
    void link.setSite(site).then(
      () => setSited(site),
      () => undefined,
    );
  }, [link, site]);

  // A move is measured when it changes, and when what it stands in does.
  const measured = useRef<{ site: unknown; bodies: Map<string, unknown> }>({ site: null, bodies: new Map() });
  useEffect(() => {
    if (!link || !sited) return;
    if (measured.current.site !== sited) measured.current = { site: sited, bodies: new Map() };
    const { bodies } = measured.current;
    const changed = shots.flatMap(({ move: used }) => (used && bodies.get(used.id) !== used.body ? [used] : []));
    if (changed.length === 0) return;
    for (const { id, body } of changed) bodies.set(id, body);
    void link.measure(changed).catch(() => undefined);
  }, [link, sited, shots]);

  const { data } = useSiteData();
  const storeys = data?.survey.storeys;
  const { frame: whole } = project.body;
  const order = useMemo(
    (): ReelOrder | null =>
      open && {
        shots,
        rate: open.rate,
        whole,
        ratio: open.frame,
        body: {
          ...(open.row.body.throughout && { throughout: true }),
          ...(open.row.body.logo && { logo: open.row.body.logo }),
        },
        moving: scenes.moving,
      },
    // What is sent is told by its parts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [shots, open?.rate, whole, open?.frame, open?.row.body.throughout, open?.row.body.logo, scenes.moving],
  );
  const known = useReelFacts((state) => state.measured);
  useEffect(() => {
    if (!link || !sited || !order || !storeys) return;
    void link.ask({ order, storeys, promised }).catch(() => setFacts({ current: false }));
  }, [link, sited, order, storeys, promised, known]);
  return {
    link: sited ? link : null,
    film: site && order ? { site, order, scenes: scenes.scenes } : null,
  };
}

const NONE: readonly PromisedObject[] = [];

/** What moves are in, as far as these shots need it. @param objects objects are looked for */
function useReelSite(shots: readonly OrderedShot[], objects: boolean): SiteOrder | null {
  const moves = useActions().some(movesParts);
  const asksParts = objects || shots.some(({ move }) => move && (moves || needsParts(move.body)));
  const order = useSiteOrder(asksParts);
  const geometry = useGeometry();
  const held = usePictureState((state) => state.geometry);
  const scene = usePictureScene(null);
  // Only the picture's worker knows the parts: it is asked to load them where nothing has been looked at yet.
  useEffect(() => {
    if (asksParts && scene && geometry !== null && held !== geometry) void loadPicture(scene);
  }, [asksParts, scene, geometry, held]);
  return !asksParts || order?.parts.length ? order : null;
}
