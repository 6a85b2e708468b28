import type { Builder, Point } from '../kit/index.ts';

/** Height of the tube's middle above the floor, metres. */
const EYE = 1.42;
/** The tube looks along −z, a little up. */
const AIM = 0.09;

/** The Heron field scope: brass and walnut on a tripod, with a focusing wheel at its side. Stands at the origin. */
export function scope(b: Builder): void {
  tripod(b);
  tube(b);
  focus(b);
}

/** A point on the axis of the tube: metres forward of its middle, and beside it. */
const along = (forward: number, right = 0, up = 0): Point => [
  right,
  EYE + AIM * forward + up,
  -forward * Math.sqrt(1 - AIM * AIM),
];

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
  b.within('Heron field scope / Focusing wheel', () => {
    const [from, to] = [along(-0.09, 0.045), along(-0.09, 0.085)];
    b.turned(
      'Brass',
      from,
      to,
      [
        [0, 0],
        [0, 0.01],
        [0.3, 0.01],
        [0.3, 0.034],
        [1, 0.034],
        [1, 0.012],
        [0.9, 0],
      ],
      40,
    );
    // Knurling: what fingers hold.
    for (let k = 0; k < 40; k += 1) {
      const turn = (2 * Math.PI * k) / 40;
      const rim = (right: number): Point => {
        const [x, y, z] = along(-0.09, right);
        return [x, y + 0.034 * Math.sin(turn), z + 0.034 * Math.cos(turn)];
      };
      b.bar('Brass', rim(0.058), rim(0.084), 0.0022, 0.0022);
    }
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

function tripod(b: Builder): void {
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

/** The wheel is turned to and fro until the heron is sharp. */
function focus(b: Builder): void {
  const hub = along(-0.09, 0.065);
  const keys: readonly (readonly [time: number, degrees: number])[] = [
    [0, 0],
    [1.4, 130],
    [2, 150],
    [3.1, 95],
    [3.8, 118],
    [4.4, 112],
    [5, 112],
  ];
  b.movements.push({
    name: 'Focus',
    part: 'Heron field scope / Focusing wheel',
    pivot: hub,
    keys: keys.map(([time, degrees]) => {
      const half = (degrees * Math.PI) / 360;
      return { time, at: hub, turn: [Math.sin(half), 0, 0, Math.cos(half)] };
    }),
  });
}
