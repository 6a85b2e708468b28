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
export function useReelScenes(shots: OpenReel['shots']): ReelScenes {
  const document = useProject();
  const sceneIn = useSceneIn();
  const { move, view } = document;
  // Naming a scene reads all of it: done once for each light, and move that turns its subject.
  const named = useMemo(() => {
    const known = new Map<string, { name: string; scene: PictureScene } | null>();
    return (light: string | null, own: ReturnType<typeof ownActions>) => {
      const key = JSON.stringify([light, own]);
      const before = known.get(key);
      if (before !== undefined) return before;
      // A light that is still being gathered is waited for in the project's own.
      const lit = sceneIn(light) ?? sceneIn(null);
      const scene = lit && (own.length > 0 ? { ...lit, actions: [...lit.actions, ...own] } : lit);
      const made = scene && { name: fingerprint(scene), scene };
      known.set(key, made);
      return made;
    };
  }, [sceneIn]);
  const found = useMemo(() => {
    const scenes: Record<string, PictureScene> = {};
    const names: Record<string, string> = {};
    for (const { id, body } of shots) {
      const { use } = body;
      if (use.kind !== 'move' && use.kind !== 'view') continue;
      const row = use.kind === 'move' ? move.find((one) => one.id === use.move) : undefined;
      const one = named(lightOfShot({ move, view }, body) ?? null, row ? ownActions(row.body) : []);
      if (!one) continue;
      scenes[one.name] = one.scene;
      names[id] = one.name;
    }
    return { scenes, names };
  }, [shots, move, view, named]);
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
