import type { Placement, Vec3 } from '@eskovan/core/document';
import type { Dress } from '@eskovan/core/site';

/** A packed model and where it stands. */
export interface PlacedFile {
  id: string;
  url: string;
  placement: Placement;
}

/** Where the picture gets its model: lit as a whole, or, until that is computed, put together as it comes. */
export type PictureSource = { kind: 'lit'; url: string } | { kind: 'plain'; models: readonly PlacedFile[] };

/** Everything that decides what the picture shows, apart from where the eye is. */
export interface PictureScene {
  source: PictureSource;
  dress: Dress;
  /** Unit vector towards the sun. */
  sun: Vec3;
}

export const sceneKey = (scene: PictureScene | null): string | null => (scene ? JSON.stringify(scene) : null);
