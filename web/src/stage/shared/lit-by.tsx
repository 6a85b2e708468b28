import type { MoveBody } from '@eskovan/core/document';
import { useEffect, type ReactNode } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { PictureSceneProvider } from '../../picture/scene.ts';
import { useLight, usePictureScene } from '../../site/use-site.ts';

interface LitByProps {
  light: string | null | undefined;
  /** The move that is shown, which may move something of its own. */
  body?: MoveBody | null;
  children: ReactNode;
}

/**
 * Everything within is seen in one light of the project, which is computed before others.
 * @param light a named light; null or absent: the project's own
 */
export function LitBy({ light, body = null, children }: LitByProps) {
  const scene = usePictureScene(light, body);
  const { key } = useLight(light);
  useEffect(() => workbench.set({ lightKey: key }), [key]);
  return <PictureSceneProvider value={scene}>{children}</PictureSceneProvider>;
}
