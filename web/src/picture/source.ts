import type { SiteAction } from '@eskovan/core/action';
import type { Lens, Placement, Pose, SiteLight, Vec3 } from '@eskovan/core/document';
import type { Dress, LitMaterials } from '@eskovan/core/site';
import type { PictureSize } from '@eskovan/render';

/** A packed model and where it stands. */
export interface PlacedFile {
  id: string;
  url: string;
  placement: Placement;
  lit?: LitMaterials;
}

/** Where the picture gets its model: lit as a whole, or, until that is computed, put together as it comes. */
export type PictureSource =
  | {
      kind: 'lit';
      url: string;
      glance?: string;
      /** What the lamps of each dimmer give of it, in their order; null for those that are off. Absent where none dims. */
      lamps?: readonly (string | null)[];
    }
  | { kind: 'plain'; models: readonly PlacedFile[] };

/** What is there sooner than a heavy source: its light stand-in. */
export const glanceSource = (source: PictureSource): PictureSource | null =>
  source.kind === 'lit' && source.glance ? { kind: 'lit', url: source.glance } : null;

/** Everything that decides what the picture shows, apart from where the eye is. */
export interface PictureScene {
  source: PictureSource;
  /** Names what stands there, whatever light it is in; see `geometryKey`. */
  geometry: string;
  dress: Dress;
  light: SiteLight;
  /** What moves while time goes on. */
  actions: readonly SiteAction[];
}

/** A small picture of something else than what is shown: in another light, say. */
export interface AsideWish {
  scene: PictureScene;
  pose: Pose;
  lens: Lens;
  size: PictureSize;
  /** As a render has it, for people to keep; else as the working view has it at rest. */
  finished?: boolean;
  /** A media type; without it WebP, small. */
  type?: 'image/png' | 'image/jpeg';
}

/** A picture so many pixels wide. @param aspect width over height */
export const sizeAcross = (width: number, aspect: number): PictureSize => ({
  width,
  height: Math.max(2, Math.round(width / aspect)),
});

/** A place in the picture that was pressed. */
export interface PickedSurface {
  /** Where it is now, metres. */
  point: Vec3;
  /** Where that place of the part is while nothing moves it. */
  rest: Vec3;
  model: string;
  name: string;
}

export const sceneKey = (scene: PictureScene | null): string | null => (scene ? JSON.stringify(scene) : null);

/** Names what a picture is made of, without looks and actions. */
export const sourceKey = (source: PictureSource): string => JSON.stringify(source);
