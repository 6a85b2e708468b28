import { useEffect, type ReactNode } from 'react';
import { workbench } from '../../desk/workbench.ts';
import { PictureSceneProvider } from '../../picture/scene.ts';
import { useLight, usePictureScene } from '../../site/use-site.ts';

/**
 * Everything within is seen in one light of the project, which is computed before others.
 * @param light a named light; null or absent: the project's own
 */
export function LitBy({ light, children }: { light: string | null | undefined; children: ReactNode }) {
  const scene = usePictureScene(light);
  const { key } = useLight(light);
  useEffect(() => workbench.set({ lightKey: key }), [key]);
  return <PictureSceneProvider value={scene}>{children}</PictureSceneProvider>;
}
