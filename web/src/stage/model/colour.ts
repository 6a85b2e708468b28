import { decodeSrgb, encodeSrgb } from '@eskovan/core/colour';

/** Linear 0…1 to `#rrggbb` (sRGB). */
export const hexOf = (color: readonly number[]): string =>
  `#${color
    .map((value) =>
      Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, value))))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;

/** `#rrggbb` (sRGB) to linear 0…1. */
export const linearOf = (hex: string): [number, number, number] => {
  const [r, g, b] = [1, 3, 5].map((at) => decodeSrgb(Number.parseInt(hex.slice(at, at + 2), 16) / 255));
  return [r!, g!, b!];
};
