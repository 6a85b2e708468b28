import { encodeSrgb } from '@eskovan/core/colour';
import { encode } from 'fast-png';
import { seeded } from './random.ts';

/**
 * How a picture lies on faces: along the longest edge of each (timber), in plan (ground), by the axis it faces, or once on
 * a card, from whose lower left corner the face goes round.
 */
export type Laying = 'grain' | 'plan' | 'box' | 'card';

export interface DemoTexture {
  /** Metres that one picture covers. */
  covers: number;
  laying: Laying;
  draw: (tile: Tile) => void;
}

const SIDE = 256;
/** The pixel that a place beyond the edge falls on. */
const wrap = (value: number) => ((Math.round(value) % SIDE) + SIDE) % SIDE;
/**
 * Mean of every picture, linear: the bake takes surfaces with pictures for this much of their colour. Colours are divided
 * by it, so that a material is on average what its sample is.
 */
export const TEXTURE_MEAN = 0.55;

/** A seamless picture of lightness, with a little warmth: all coordinates wrap. */
class Tile {
  readonly light = new Float32Array(SIDE * SIDE).fill(1);
  readonly warmth = new Float32Array(SIDE * SIDE);
  /** Null where nothing is cut out. */
  alpha: Uint8Array | null = null;
  readonly random: () => number;

  constructor(seed: number) {
    this.random = seeded(seed);
  }

  each(change: (u: number, v: number, at: number) => void): void {
    for (let y = 0; y < SIDE; y += 1) for (let x = 0; x < SIDE; x += 1) change(x / SIDE, y / SIDE, y * SIDE + x);
  }

  /** Smooth noise −1…1 that repeats after so many cells each way. */
  noise(across: number, down: number): (u: number, v: number) => number {
    const values = Float32Array.from({ length: across * down }, () => 2 * this.random() - 1);
    const soft = (t: number) => t * t * (3 - 2 * t);
    return (u, v) => {
      const [x, y] = [u * across, v * down];
      const [x0, y0] = [Math.floor(x), Math.floor(y)];
      const [sx, sy] = [soft(x - x0), soft(y - y0)];
      const at = (i: number, j: number) =>
        values[((((y0 + j) % down) + down) % down) * across + ((((x0 + i) % across) + across) % across)]!;
      const above = at(0, 0) * (1 - sx) + at(1, 0) * sx;
      return above * (1 - sy) + (at(0, 1) * (1 - sx) + at(1, 1) * sx) * sy;
    };
  }

  /** A soft stroke from a place in a direction, pixels. */
  stroke(x: number, y: number, [dx, dy]: readonly [number, number], length: number, light: number, warm: number): void {
    for (let k = 0; k < length; k += 1) {
      const at = wrap(y + k * dy) * SIDE + wrap(x + k * dx);
      const fade = 0.75 * (1 - (k / length) ** 2);
      this.light[at]! += (light - this.light[at]!) * fade;
      this.warmth[at]! += (warm - this.warmth[at]!) * fade;
    }
  }

  /** A tapering blade on a card, from a foot in a direction, bent as it rises; all of it inside the picture. */
  blade(
    x: number,
    y: number,
    turn: number,
    bend: number,
    [length, width]: readonly [number, number],
    light: number,
  ): void {
    this.alpha ??= new Uint8Array(SIDE * SIDE);
    for (let k = 0; k < length; k += 0.5) {
      const t = k / length;
      const way = turn + bend * t * t;
      x += 0.5 * Math.sin(way);
      y -= 0.5 * Math.cos(way);
      const half = Math.max(0.7, (width / 2) * (1 - t) ** 0.6);
      for (let i = Math.floor(x - half); i <= x + half; i += 1) {
        const row = Math.round(y);
        if (i < 1 || i >= SIDE - 1 || row < 1 || row >= SIDE) continue;
        const at = row * SIDE + i;
        this.alpha[at] = 255;
        // Darker at the foot, where others stand about it.
        this.light[at] = light * (0.55 + 0.6 * t) * (1 + (0.25 * (i - x)) / half);
        this.warmth[at] = 0.12 * t - 0.03;
      }
    }
  }

  /** A round pebble, lit from one side. */
  pebble(x: number, y: number, radius: number, light: number, warm: number): void {
    const reach = Math.ceil(radius);
    for (let j = -reach; j <= reach; j += 1)
      for (let i = -reach; i <= reach; i += 1) {
        if (i * i + j * j > radius * radius) continue;
        const at = wrap(y + j) * SIDE + wrap(x + i);
        this.light[at] = light * (1 - (0.16 * (i + j)) / Math.max(1, radius));
        this.warmth[at] = warm;
      }
  }

  /** The picture as a PNG, its mean brought to {@link TEXTURE_MEAN}. */
  png(): Uint8Array {
    const { alpha } = this;
    const there = alpha ? this.light.filter((_, i) => alpha[i]! > 0) : this.light;
    const mean = there.reduce((sum, value) => sum + value, 0) / there.length;
    const channels = alpha ? 4 : 3;
    const data = new Uint8Array(SIDE * SIDE * channels);
    const srgb = (value: number) => Math.round(255 * Math.min(1, encodeSrgb(value)));
    for (let i = 0; i < this.light.length; i += 1) {
      // What is cut out has the colour of what is beside it: no dark rims from afar.
      const light = !alpha || alpha[i] ? Math.max(0.01, (TEXTURE_MEAN * this.light[i]!) / mean) : TEXTURE_MEAN;
      const warm = this.warmth[i]!;
      data[channels * i] = srgb(light * (1 + warm));
      data[channels * i + 1] = srgb(light);
      data[channels * i + 2] = srgb(light * (1 - warm));
      if (alpha) data[channels * i + 3] = alpha[i]!;
    }
    return encode({ width: SIDE, height: SIDE, data, channels, depth: 8 });
  }
}

/** Timber: streaks along the grain, fine pores, now and then a dark line. */
const timber =
  (contrast: number) =>
  (tile: Tile): void => {
    const [wide, middle, fine, bend] = [tile.noise(2, 9), tile.noise(3, 34), tile.noise(6, 128), tile.noise(2, 3)];
    tile.each((u, v, at) => {
      const w = v + 0.012 * bend(u, v);
      const lines = Math.max(0, middle(u, w) - 0.55);
      tile.light[at] = 1 + contrast * (0.5 * wide(u, w) + 0.42 * middle(u, w) + 0.3 * fine(u, w) - 0.9 * lines);
      tile.warmth[at] = 0.05 * wide(u, w);
    });
  };

export const TEXTURES = {
  timber: { covers: 1.3, laying: 'grain', draw: timber(0.34) },
  weathered: { covers: 1.5, laying: 'grain', draw: timber(0.5) },
  grass: {
    covers: 2.6,
    laying: 'plan',
    draw: (tile) => {
      const [patch, spots] = [tile.noise(4, 4), tile.noise(11, 11)];
      tile.each((u, v, at) => {
        tile.light[at] = 0.66 + 0.06 * patch(u, v) + 0.12 * spots(u, v);
        tile.warmth[at] = 0.06 * spots(u, v);
      });
      for (let i = 0; i < 9000; i += 1) {
        const [x, y, turn] = [SIDE * tile.random(), SIDE * tile.random(), 2 * Math.PI * tile.random()];
        const tone = 0.5 + 0.72 * tile.random() ** 1.3 + 0.06 * patch(x / SIDE, y / SIDE);
        const way = [Math.cos(turn), Math.sin(turn)] as const;
        tile.stroke(x, y, way, 4 + 9 * tile.random(), tone, 0.16 * (tile.random() - 0.35));
      }
    },
  },
  gravel: {
    covers: 1.1,
    laying: 'plan',
    draw: (tile) => {
      tile.light.fill(0.5);
      for (let i = 0; i < 5200; i += 1)
        tile.pebble(
          SIDE * tile.random(),
          SIDE * tile.random(),
          1.2 + 2.4 * tile.random() ** 2,
          0.7 + 0.55 * tile.random(),
          0.1 * (tile.random() - 0.4),
        );
    },
  },
  reeds: {
    covers: 1,
    laying: 'card',
    draw: (tile) => {
      for (let i = 0; i < 46; i += 1) {
        const x = SIDE * (0.5 + 0.34 * (tile.random() - tile.random()));
        const lean = 0.5 * (tile.random() - 0.5) + 0.5 * (x / SIDE - 0.5);
        const size = [SIDE * (0.45 + 0.5 * tile.random()), 5 + 4 * tile.random()] as const;
        tile.blade(x, SIDE - 1, lean, 0.9 * (tile.random() - 0.35), size, 0.75 + 0.5 * tile.random());
      }
    },
  },
  tuft: {
    covers: 1,
    laying: 'card',
    draw: (tile) => {
      for (let i = 0; i < 90; i += 1) {
        const x = SIDE * (0.5 + 0.42 * (tile.random() - tile.random()));
        const lean = 1.3 * (tile.random() - 0.5) + 1.1 * (x / SIDE - 0.5);
        const size = [SIDE * (0.3 + 0.6 * tile.random()), 6 + 4 * tile.random()] as const;
        tile.blade(x, SIDE - 1, lean, 1.4 * (tile.random() - 0.5), size, 0.7 + 0.5 * tile.random());
      }
    },
  },
  leaves: {
    covers: 1,
    laying: 'card',
    draw: (tile) => {
      for (let i = 0; i < 330; i += 1) {
        const [turn, out] = [2 * Math.PI * tile.random(), 0.44 * Math.sqrt(tile.random())];
        const [x, y] = [SIDE * (0.5 + out * Math.cos(turn)), SIDE * (0.5 + out * Math.sin(turn))];
        const size = [13 + 12 * tile.random(), 7 + 4 * tile.random()] as const;
        tile.blade(x, y, 2 * Math.PI * tile.random(), 0.8 * (tile.random() - 0.5), size, 0.6 + 0.7 * tile.random());
      }
    },
  },
  stone: {
    covers: 0.9,
    laying: 'box',
    draw: (tile) => {
      const [cloud, grain] = [tile.noise(5, 5), tile.noise(90, 90)];
      tile.each((u, v, at) => {
        tile.light[at] = 1 + 0.1 * cloud(u, v) + 0.28 * grain(u, v) + 0.12 * (tile.random() - 0.5);
      });
    },
  },
} as const satisfies Record<string, DemoTexture>;

export type TextureName = keyof typeof TEXTURES;

const drawn = new Map<TextureName, Uint8Array>();

/** A texture as a PNG; the same bytes every time. */
export function textureOf(name: TextureName): Uint8Array {
  let png = drawn.get(name);
  if (!png) {
    const tile = new Tile(Object.keys(TEXTURES).indexOf(name) + 71);
    TEXTURES[name].draw(tile);
    drawn.set(name, (png = tile.png()));
  }
  return png;
}
