import type { Lens, Quaternion, Vec3 } from '../document/index.ts';
import { usedSensor } from './view-angle.ts';

/** What a camera sees with: a lens, or parallel rays over so many metres of height (and the lens to come back to). */
export type CameraView = ({ kind: 'lens' } & Optics) | ({ kind: 'parallel'; height: number } & Partial<Optics>);
/** Of a lens what bears on where things are in the picture, and how sharp. */
type Optics = Omit<Lens, 'exposure'>;

/** A view through a lens, telecentric ones included. */
export const throughLens = ({ exposure: _, ...lens }: Lens): CameraView =>
  lens.parallel === undefined ? { kind: 'lens', ...lens } : { kind: 'parallel', height: lens.parallel, ...lens };

/** Is one distance sharp in a view, and what is nearer or farther not? */
export const isFocused = (
  view: CameraView,
): view is Extract<CameraView, { kind: 'lens' }> & { focus: number; fNumber: number } =>
  view.kind === 'lens' && view.focus !== undefined && view.fNumber !== undefined;

/** Edges of a picture, metres: on the plane one metre in front of the eye, or of a parallel picture itself. */
export interface Window {
  left: number;
  right: number;
  bottom: number;
  top: number;
}

/** A ray into the scene, metres; the direction has unit length. */
export interface Ray {
  from: Vec3;
  direction: Vec3;
}

/** A place in the picture: −1…1 from the centre to the right and upper edge, and the distance before the eye's plane. */
export interface PictureRay {
  x: number;
  y: number;
  /** metres */
  depth: number;
}

/**
 * How places of the scene become places of the picture, for everyone who asks: drawing, pressing, cones on plans, checks
 * and files. Camera coordinates are x right, y up, looking down −z.
 */
export class Projection {
  readonly window: Window;
  private readonly right: Vec3;
  private readonly up: Vec3;
  private readonly forward: Vec3;

  /** @param aspect width over height of the picture */
  constructor(
    readonly view: CameraView,
    aspect: number,
    readonly position: Vec3 = [0, 0, 0],
    orientation: Quaternion = [0, 0, 0, 1],
  ) {
    this.window = windowOf(view, aspect);
    this.right = turned(orientation, [1, 0, 0]);
    this.up = turned(orientation, [0, 1, 0]);
    this.forward = turned(orientation, [0, 0, -1]);
  }

  /**
   * A clip matrix, 16 numbers by columns, depth −1…1 (as WebGL has it).
   * @param window a part of the picture, or a picture moved by parts of a pixel
   */
  matrix(near: number, far: number, window: Window = this.window): number[] {
    const { left, right, bottom, top } = window;
    const [width, height, depth] = [right - left, top - bottom, far - near];
    const [middleX, middleY] = [(right + left) / width, (top + bottom) / height];
    if (this.view.kind === 'parallel')
      return [
        2 / width,
        0,
        0,
        0,
        0,
        2 / height,
        0,
        0,
        0,
        0,
        -2 / depth,
        0,
        -middleX,
        -middleY,
        -(far + near) / depth,
        1,
      ];
    // prettier-ignore
    return [
      2 / width, 0, 0, 0,
      0, 2 / height, 0, 0,
      middleX, middleY, -(far + near) / depth, -1,
      0, 0, (-2 * far * near) / depth, 0,
    ];
  }

  /** The ray through a place of the picture, −1…1 from its centre to the right and upper edge. */
  ray(x: number, y: number): Ray {
    const { left, right, bottom, top } = this.window;
    const u = left + ((x + 1) / 2) * (right - left);
    const v = bottom + ((y + 1) / 2) * (top - bottom);
    const { position, forward } = this;
    const aside = (k: number) => u * this.right[k]! + v * this.up[k]!;
    if (this.view.kind === 'parallel') return { from: triple((k) => position[k]! + aside(k)), direction: [...forward] };
    const length = Math.hypot(1, u, v);
    return { from: [...position], direction: triple((k) => (forward[k]! + aside(k)) / length) };
  }

  /** Where a point is in the picture. Behind the eye its depth is negative, and through a lens its place means nothing. */
  project(point: Readonly<Vec3>): PictureRay {
    const [across, upward, depth] = this.alongAxes(triple((k) => point[k]! - this.position[k]!));
    const scale = this.view.kind === 'parallel' ? 1 : depth;
    const { left, right, bottom, top } = this.window;
    return {
      x: (2 * (across / scale - left)) / (right - left) - 1,
      y: (2 * (upward / scale - bottom)) / (top - bottom) - 1,
      depth,
    };
  }

  /** A vector of the scene by the camera's axes: to the right, up, and away from the eye. */
  alongAxes([x, y, z]: Readonly<Vec3>): Vec3 {
    const along = (axis: Vec3) => x * axis[0] + y * axis[1] + z * axis[2];
    return [along(this.right), along(this.up), along(this.forward)];
  }

  /** The inverse of {@link alongAxes}: so much to the right, up, and away from the eye, as a vector of the scene. */
  fromAxes([right, up, ahead]: Readonly<Vec3>): Vec3 {
    return triple((k) => right * this.right[k]! + up * this.up[k]! + ahead * this.forward[k]!);
  }

  /** Angles from straight ahead to the left and right edge, radians, left negative; of parallel rays both are 0. */
  get edges(): { left: number; right: number } {
    if (this.view.kind === 'parallel') return { left: 0, right: 0 };
    return { left: Math.atan(this.window.left), right: Math.atan(this.window.right) };
  }

  /** Width and height of what is seen at a distance before the eye, metres. */
  footprint(distance: number): { width: number; height: number } {
    const scale = this.view.kind === 'parallel' ? 1 : distance;
    const { left, right, bottom, top } = this.window;
    return { width: (right - left) * scale, height: (top - bottom) * scale };
  }
}

const triple = (of: (k: number) => number): Vec3 => [of(0), of(1), of(2)];

/** A vector turned by a unit quaternion. */
function turned([x, y, z, w]: Quaternion, [a, b, c]: Vec3): Vec3 {
  const [tx, ty, tz] = [2 * (y * c - z * b), 2 * (z * a - x * c), 2 * (x * b - y * a)];
  return [a + w * tx + y * tz - z * ty, b + w * ty + z * tx - x * tz, c + w * tz + x * ty - y * tx];
}

/**
 * The window of a view. Shift moves it, never the view angle: a level camera with a vertical shift keeps verticals
 * parallel.
 */
function windowOf(view: CameraView, aspect: number): Window {
  if (view.kind === 'parallel') {
    const half = view.height / 2;
    return { left: -half * aspect, right: half * aspect, bottom: -half, top: half };
  }
  const { widthMm, heightMm } = usedSensor(view.sensor, aspect);
  const halfWidth = widthMm / (2 * view.focalLengthMm);
  const halfHeight = heightMm / (2 * view.focalLengthMm);
  const dx = (view.shift[0] * view.sensor.widthMm) / view.focalLengthMm;
  const dy = (view.shift[1] * view.sensor.heightMm) / view.focalLengthMm;
  return { left: dx - halfWidth, right: dx + halfWidth, bottom: dy - halfHeight, top: dy + halfHeight };
}
