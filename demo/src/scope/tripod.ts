import type { Builder, Point } from '../kit/index.ts';
import { EYE } from './axis.ts';

/** Three walnut legs with brass feet, and the head that carries the tube. */
export function tripod(b: Builder): void {
  const head: Point = [0, EYE - 0.2, 0];
  b.within('Heron field scope / Head', () => {
    b.turned(
      'Brass',
      [0, EYE - 0.26, 0],
      [0, EYE - 0.12, 0],
      [
        [0, 0],
        [0, 0.05],
        [0.25, 0.05],
        [0.3, 0.032],
        [0.75, 0.03],
        [0.8, 0.042],
        [1, 0.042],
        [1, 0],
      ],
      32,
    );
    b.turned(
      'Brass',
      [-0.062, EYE - 0.09, 0],
      [0.062, EYE - 0.09, 0],
      [
        [0, 0],
        [0, 0.024],
        [1, 0.024],
        [1, 0],
      ],
      24,
    );
    for (const side of [-1, 1])
      b.box('Brass', [side * 0.062 - 0.006, EYE - 0.13, -0.02], [side * 0.062 + 0.006, EYE + 0.012, 0.02]);
    // The handle that pans it.
    b.turned(
      'Brass',
      [0.03, EYE - 0.12, 0.03],
      [0.1, EYE - 0.26, 0.34],
      [
        [0, 0.007],
        [1, 0.007],
      ],
      12,
    );
    b.turned(
      'Walnut',
      [0.083, EYE - 0.226, 0.265],
      [0.112, EYE - 0.284, 0.393],
      [
        [0, 0],
        [0, 0.013],
        [0.5, 0.017],
        [1, 0.014],
        [1, 0],
      ],
      18,
    );
  });
  b.within('Heron field scope / Legs', () => {
    for (let k = 0; k < 3; k += 1) {
      const turn = Math.PI / 2 + (2 * Math.PI * k) / 3;
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const top: Point = [head[0] + 0.06 * c, head[1], head[2] + 0.06 * s];
      const knee: Point = [0.3 * c, 0.56, 0.3 * s];
      const foot: Point = [0.5 * c, 0.03, 0.5 * s];
      for (const side of [-1, 1]) {
        const off = (p: Point, by: number): Point => [p[0] - s * by * side, p[1], p[2] + c * by * side];
        b.turned(
          'Walnut',
          off(top, 0.02),
          off(knee, 0.016),
          [
            [0, 0],
            [0, 0.014],
            [1, 0.014],
            [1, 0],
          ],
          10,
        );
      }
      b.turned(
        'Walnut',
        [knee[0] * 0.8, knee[1] + 0.13, knee[2] * 0.8],
        foot,
        [
          [0, 0],
          [0, 0.013],
          [1, 0.011],
          [1, 0],
        ],
        12,
      );
      b.box(
        'Brass',
        [knee[0] - 0.026, knee[1] - 0.02, knee[2] - 0.026],
        [knee[0] + 0.026, knee[1] + 0.024, knee[2] + 0.026],
      );
      b.turned(
        'Brass',
        [foot[0], 0.05, foot[2]],
        [foot[0] + 0.012 * c, 0, foot[2] + 0.012 * s],
        [
          [0, 0.016],
          [0.6, 0.012],
          [1, 0],
        ],
        14,
      );
      // The spreader keeps the legs where they are.
      b.turned(
        'Brass',
        [0, 0.62, 0],
        [knee[0] * 0.92, knee[1] + 0.07, knee[2] * 0.92],
        [
          [0, 0.005],
          [1, 0.005],
        ],
        8,
      );
    }
    b.turned(
      'Brass',
      [0, 0.6, 0],
      [0, 0.64, 0],
      [
        [0, 0],
        [0, 0.03],
        [1, 0.03],
        [1, 0],
      ],
      24,
    );
  });
}
