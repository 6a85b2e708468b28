import { shadesOf, slopesOf, SLOPE_CLASSES, type Relief } from '@eskovan/core/survey';

/** How much of the ink the deepest shade has, and of the paper the brightest slope. */
const DARKEST = 0.8;
const BRIGHTEST = 0.7;
/** How strongly the first and the last class of slopes is tinted. */
const TINT = [0, 0.62] as const;

/** How strongly a class of slopes is tinted, 0…1. */
export const tintOf = (index: number): number => TINT[0] + ((TINT[1] - TINT[0]) * index) / (SLOPE_CLASSES.length - 1);

/**
 * A relief as a picture, one pixel a cell: shaded by the light of maps, or tinted by how steep it is.
 * @param dark colour of shade @param light colour of what faces the light @param tint colour of slopes, null for shading
 */
export function reliefImage(relief: Relief, dark: Rgb, light: Rgb, tint: Rgb | null): OffscreenCanvas {
  const { columns, rows } = relief;
  const canvas = new OffscreenCanvas(columns, rows);
  const context = canvas.getContext('2d')!;
  const image = context.createImageData(columns, rows);
  const values = tint ? slopesOf(relief) : shadesOf(relief);
  values.forEach((value, i) => {
    if (Number.isNaN(value)) return;
    const [color, strength] = tint
      ? [tint, tintOf(SLOPE_CLASSES.findIndex(({ to }) => value <= to))]
      : value < 1
        ? [dark, (1 - value) * DARKEST]
        : [light, Math.min(1, (value - 1) / 0.4) * BRIGHTEST];
    image.data.set([...color, Math.round(255 * strength)], 4 * i);
  });
  context.putImageData(image, 0, 0);
  return canvas;
}

type Rgb = readonly [number, number, number];

/** A colour of the style sheet as three bytes. */
export function rgbOf(color: string): Rgb {
  const canvas = new OffscreenCanvas(1, 1);
  const context = canvas.getContext('2d')!;
  context.fillStyle = color;
  context.fillRect(0, 0, 1, 1);
  const [r, g, b] = context.getImageData(0, 0, 1, 1).data;
  return [r!, g!, b!];
}
