import type { SiteLight } from '@eskovan/core/document';
import type { SceneModel } from '@eskovan/core/format';
import type { CameraSample } from '@eskovan/core/move';
import { Projection } from '@eskovan/core/optics';
import { emptyGather, PixelLight, smoothGather, type PixelGather } from '@eskovan/core/survey';
import type { PictureSize } from '@eskovan/render';

/** Stills of so many passes are worth gathering light once more, pixel by pixel. */
export const GATHERED_FROM = 32;
/** Rays for a whole picture, about: a large one has fewer a pixel, which the filter makes up for. */
const RAYS = 9_000_000;
const FEWEST = 16;
const MOST = 64;
/** What of the work on a still gathering is; the rest is drawing. */
const SHARE = 0.6;
/** Rows that are gathered before somebody is told. */
const ROWS = 6;

/** Gathers light for a still at half its size: what it adds is soft. The baked model, not what is left out of it, sends it. */
export async function gatherLight(
  lit: SceneModel,
  light: SiteLight,
  sample: CameraSample,
  size: PictureSize,
  onProgress: (done: number) => void,
): Promise<PixelGather> {
  const [width, height] = [Math.ceil(size.width / 2), Math.ceil(size.height / 2)];
  const gather = emptyGather(width, height);
  const rays = Math.min(MOST, Math.max(FEWEST, Math.round(RAYS / (width * height))));
  const { view, position, orientation } = sample;
  const projection = new Projection(view, width / height, position, orientation);
  const pixels = new PixelLight(lit, light);
  for (let row = 0; row < height; row += ROWS) {
    pixels.rows(projection, gather, rays, row, Math.min(height, row + ROWS));
    onProgress((SHARE * (row + ROWS)) / height);
    // Lets the message out.
    await new Promise((resolve) => setTimeout(resolve));
  }
  smoothGather(gather);
  return gather;
}
