import type { Builder } from '../kit/index.ts';
import { along } from './axis.ts';
import { focusingWheel } from './focusing-wheel.ts';
import { tripod } from './tripod.ts';

/** The Heron field scope: brass and walnut on a tripod, with a focusing wheel at its side. Stands at the origin. */
export function scope(b: Builder): void {
  tripod(b);
  tube(b);
  focusingWheel(b);
}

function tube(b: Builder): void {
  b.within('Heron field scope / Tube', () => {
    b.turned(
      'Walnut',
      along(-0.16),
      along(0.3),
      [
        [0, 0.041],
        [0.04, 0.043],
        [0.96, 0.049],
        [1, 0.047],
      ],
      36,
    );
    b.turned(
      'Brass',
      along(0.29),
      along(0.47),
      [
        [0, 0.047],
        [0, 0.053],
        [0.1, 0.053],
        [0.14, 0.049],
        [0.86, 0.055],
        [0.9, 0.06],
        [1, 0.06],
        [1, 0.053],
      ],
      36,
    );
    b.turned(
      'Lens glass',
      along(0.455),
      along(0.462),
      [
        [0, 0.053],
        [0.6, 0.03],
        [1, 0],
      ],
      36,
    );
    for (const at of [-0.1, 0.06, 0.22])
      b.turned(
        'Brass',
        along(at),
        along(at + 0.012),
        [
          [0, 0.04],
          [0, 0.0495],
          [1, 0.0495],
          [1, 0.04],
        ],
        36,
      );
  });
  b.within('Heron field scope / Eyepiece', () => {
    b.turned(
      'Brass',
      along(-0.17),
      along(-0.34),
      [
        [0, 0.041],
        [0.1, 0.041],
        [0.14, 0.03],
        [0.55, 0.028],
        [0.6, 0.034],
        [0.72, 0.034],
        [0.76, 0.026],
        [1, 0.026],
      ],
      32,
    );
    b.turned(
      'Rubber',
      along(-0.34),
      along(-0.385),
      [
        [0, 0.026],
        [0.1, 0.031],
        [0.8, 0.034],
        [1, 0.03],
        [1, 0.013],
      ],
      32,
    );
    b.turned(
      'Lens glass',
      along(-0.37),
      along(-0.374),
      [
        [0, 0.02],
        [1, 0],
      ],
      24,
    );
  });
  b.within('Heron field scope / Sight', () => {
    b.turned(
      'Brass',
      along(-0.06, 0, 0.066),
      along(0.16, 0, 0.066),
      [
        [0, 0.006],
        [0, 0.009],
        [0.9, 0.009],
        [0.92, 0.012],
        [1, 0.012],
        [1, 0.006],
      ],
      20,
    );
    for (const at of [-0.03, 0.12]) b.bar('Brass', along(at, 0, 0.04), along(at, 0, 0.06), 0.008, 0.012);
  });
}
