import { createContext, useContext } from 'react';
import type { PictureScene } from './source.ts';

const SceneContext = createContext<PictureScene | null>(null);
export const PictureSceneProvider = SceneContext.Provider;

/** What pictures are to show; null until it is known. */
export const useScene = (): PictureScene | null => useContext(SceneContext);
