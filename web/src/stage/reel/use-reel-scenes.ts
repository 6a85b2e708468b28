import { ownActions } from '@eskovan/core/action';
import { fingerprint } from '@eskovan/core/site';
import { useMemo } from 'react';
import { useProject } from '../../data/use-project.ts';
import type { PictureScene } from '../../picture/source.ts';
import { useSceneIn } from '../../site/use-scene-in.ts';
import { lightOfShot, type OpenReel } from './open-reel.ts';

/** The scenes of a reel by name, and which each shot is seen in. */
export interface ReelScenes {
  scenes: Readonly<Record<string, PictureScene>>;
  /** The name of a shot's scene; null for what has none, or whose light is still being gathered. */
  sceneOf: (shotId: string) => string | null;
  /** Does anything in them move by itself? */
  moving: boolean;
}

/** What the shots of a reel are seen in: one scene for each light, and for each move that turns its subject. */
export function useReelScenes({ shots }: Pick<OpenReel, 'shots'>): ReelScenes {
  const document = useProject();
  const sceneIn = useSceneIn();
  const { move, view } = document;
  const found = useMemo(() => {
    const lit = new Map<string, PictureScene | null>();
    const scenes: Record<string, PictureScene> = {};
    const names: Record<string, string> = {};
    for (const { id, body } of shots) {
      const { use } = body;
      if (use.kind !== 'move' && use.kind !== 'view') continue;
      const light = lightOfShot({ move, view }, body) ?? null;
      if (!lit.has(String(light))) lit.set(String(light), sceneIn(light));
      // A light that is still being gathered is waited for in the project's own.
      const scene = lit.get(String(light)) ?? sceneIn(null);
      if (!scene) continue;
      const row = use.kind === 'move' ? move.find((one) => one.id === use.move) : undefined;
      const own = row ? ownActions(row.body) : [];
      const whole = own.length > 0 ? { ...scene, actions: [...scene.actions, ...own] } : scene;
      const name = fingerprint(whole);
      scenes[name] = whole;
      names[id] = name;
    }
    return { scenes, names };
  }, [shots, move, view, sceneIn]);
  const said = fingerprint(Object.keys(found.scenes).sort());
  // The same as long as none of them changes.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const scenes = useMemo(() => found.scenes, [said]);
  return useMemo(
    () => ({
      scenes,
      sceneOf: (id) => found.names[id] ?? null,
      moving: Object.values(scenes).some(({ actions }) => actions.length > 0),
    }),
    [scenes, found],
  );
}
