import type { Builder, Point } from '../kit/index.ts';
import { along } from './axis.ts';

/** The wheel at the tube's side. It turns to and fro until the heron is sharp. */
export function focusingWheel(b: Builder): void {
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
