import type { Vec3 } from '../document/index.ts';
import type { Footing } from '../survey/index.ts';
import type { CompiledMove, MovePath } from './sample.ts';

/** So far before the eye that a lens of 24 mm shows somebody from head to foot, metres of the way. */
const AHEAD = 4;
/** Beside the way where there is room, metres; as little as there is room for elsewhere. */
const BESIDE = [0.7, 0.5, 0.3] as const;
/** Half a person's width, metres. */
const SHOULDER = 0.3;
/** Heights over the floor at which there must be room: knee, hip, head. Metres. */
const BODY = [0.4, 1, 1.6] as const;
/** How far apart room is looked for, and over how far the way beside it is evened out, metres. */
const SPACING = 0.25;
const EVENED = 1;
/** A floor that differs by more than this is another one, metres. */
const SAME_FLOOR = 0.05;
/** Two steps of somebody who walks, metres (common practice, no source). */
const STRIDE = 1.5;
/** What differs by less is the same floor or the next tread of it, metres. */
const TREAD = 0.3;
/** How far legs swing at a walk, radians; less where somebody goes slower than this, m/s. */
const SWING = 0.42;
const WALK = 1;

/** Somebody who walks. */
export interface Walking {
  /** Between the feet, metres. */
  at: Vec3;
  /** Turn about the vertical of somebody who looked along −Z, radians. */
  turn: number;
  /** How far the right leg is before the left one, radians. */
  swing: number;
}

/**
 * Somebody who walks along before the eye, for scale: on the floor, beside the way where there is room, through doors on it.
 * At the end of the way they stand.
 */
export class Companion {
  /** Metres of room to the right of the way, at every {@link SPACING} of it; NaN where nobody has asked yet. */
  private readonly room: Float64Array;

  private constructor(
    private readonly path: MovePath,
    private readonly footing: Footing,
  ) {
    this.room = new Float64Array(Math.max(2, Math.ceil(path.length / SPACING) + 1)).fill(Number.NaN);
  }

  /** Of a walk; null of what does not walk. */
  static of({ path, ground }: Pick<CompiledMove, 'path' | 'ground'>, footing: Footing): Companion | null {
    return path && ground ? new Companion(path, footing) : null;
  }

  /** @param time of the walk, seconds */
  at(time: number): Walking {
    const station = this.stationAt(time);
    const [dx, dz] = this.directionAt(station);
    const floor = this.path.placeAt(station);
    const off = this.besideAt(station);
    const [x, z] = [floor[0] - dz * off, floor[2] + dx * off];
    const speed = Math.abs(this.stationAt(time + 0.05) - this.stationAt(time - 0.05)) / 0.1;
    const swing = SWING * Math.min(1, speed / WALK) * Math.sin((2 * Math.PI * station) / STRIDE);
    return { at: [x, this.standingAt(x, z, floor[1]), z], turn: Math.atan2(-dx, -dz), swing };
  }

  /** The very surface there: a table of the way's floor goes over the edges of treads evenly. */
  private standingAt(x: number, z: number, y: number): number {
    const own = this.footing.surfaceNear(x, z, y);
    return own !== null && Math.abs(own - y) < TREAD ? own : y;
  }

  private stationAt(time: number): number {
    const { path } = this;
    const station = path.stationAt(time) + AHEAD;
    return path.closed ? station % path.length : Math.min(station, path.length);
  }

  /** Where the way leads in plan, over the length of a step: a unit vector. */
  private directionAt(station: number): [number, number] {
    const { length, closed } = this.path;
    const within = (s: number) => (closed ? (s + length) % length : Math.min(Math.max(s, 0), length));
    const [from, to] = [this.path.placeAt(within(station - 0.35)), this.path.placeAt(within(station + 0.35))];
    const [x, z] = [to[0] - from[0], to[2] - from[2]];
    const size = Math.hypot(x, z);
    return size > 0 ? [x / size, z / size] : [0, -1];
  }

  /** How far to the right somebody can walk without touching anything, metres. */
  private roomAt(station: number): number {
    const [dx, dz] = this.directionAt(station);
    const [x, y, z] = this.path.placeAt(station);
    const isFree = (off: number) => {
      const reach = off + SHOULDER;
      const floor = this.footing.surfaceNear(x - dz * off, z + dx * off, y);
      if (floor === null || Math.abs(floor - this.standingAt(x, z, y)) > SAME_FLOOR) return false;
      return BODY.every(
        (height) => !this.footing.hiding([x, y + height, z], [x - dz * reach, y + height, z + dx * reach]),
      );
    };
    return BESIDE.find(isFree) ?? 0;
  }

  /** The mean, over a reach to either side, of the least room within that reach: nowhere more than there is. */
  private besideAt(station: number): number {
    const { path, room } = this;
    const last = room.length - 1;
    const spacing = path.length / last;
    const reach = Math.round(EVENED / spacing);
    const roomOf = (i: number) => {
      const k = path.closed ? (i + last) % last : Math.min(Math.max(i, 0), last);
      if (Number.isNaN(room[k]!)) room[k] = this.roomAt(k * spacing);
      return room[k]!;
    };
    const least = (i: number) => {
      let found = Infinity;
      for (let k = i - reach; k <= i + reach; k += 1) found = Math.min(found, roomOf(k));
      return found;
    };
    const before = Math.floor(station / spacing);
    const part = station / spacing - before;
    let sum = 0;
    for (let k = -reach; k <= reach; k += 1)
      sum += least(before + k) * (1 - part) + (part > 0 ? least(before + k + 1) * part : 0);
    return sum / (2 * reach + 1);
  }
}
