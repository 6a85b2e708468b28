import type { PictureSize } from './picture-size.ts';
import {
  CubeCamera,
  HalfFloatType,
  LinearFilter,
  LinearMipmapLinearFilter,
  LinearSRGBColorSpace,
  Mesh,
  WebGLCubeRenderTarget,
  type Camera,
  type Material,
  type Object3D,
  type PerspectiveCamera,
  type Scene,
  Vector3,
  type WebGLRenderer,
} from 'three';
import type { MirrorUniforms } from '../scene/mirror.ts';

/**
 * How closely one looks around, for frames of few passes and for those that are looked at closely: pixels of the side of a
 * face; the part of the distance to which moving pictures show detail to which it is shown in them; and how far the eye may
 * go until it looks again, metres: what is mirrored is looked for where it stands.
 */
const LOOKS = {
  quick: { side: 128, detail: 0.35, serves: 0.2 },
  fine: { side: 256, detail: 0.7, serves: 0.1 },
} as const;
const FINE_FROM = 8;

/** One sub-frame of so many looks into mirrors, but never fewer than two. */
const ONE_OF = 4;

const lookFor = (subframes: number) => (subframes < FINE_FROM ? LOOKS.quick : LOOKS.fine);

/** What is nearer together than this is one place in the picture, radians. */
export const mirrorPixel = (subframes: number): number => Math.PI / 2 / lookFor(subframes).side;

/** The part of its reach to which detail is in the picture. */
export const mirrorDetail = (subframes: number): number => lookFor(subframes).detail;

/** Pixels of each side of the picture around the eye. */
export const mirrorSize = (subframes: number): PictureSize => {
  const { side } = lookFor(subframes);
  return { width: side, height: side };
};

/** How often a sub-frame's mirrors count: see {@link Surroundings.weigh}. */
export function mirrorWeight(subframe: number, subframes: number): number {
  const looking = Math.min(subframes, Math.max(2, Math.ceil(subframes / ONE_OF)));
  const turn = (i: number) => Math.floor((i * looking) / subframes);
  return turn(subframe) === turn(subframe - 1) ? 0 : subframes / looking;
}

/** A picture of everything around the eye, as light with its distance: what smooth surfaces of the frame mirror. */
export class Surroundings {
  readonly uniforms: MirrorUniforms = {
    surroundings: { value: null },
    surroundingsAt: { value: new Vector3() },
    mirroring: { value: false },
    mirrorWeight: { value: 1 },
  };
  private target: WebGLCubeRenderTarget | null = null;
  private taken = false;

  constructor(private readonly renderer: WebGLRenderer) {}

  /** Does the picture serve for a frame? @param otherwise something in it has moved, or is lit otherwise */
  serves(eye: Vector3, subframes: number, otherwise: boolean): boolean {
    const place = this.uniforms.surroundingsAt.value as Vector3;
    const { side, serves } = lookFor(subframes);
    return this.taken && !otherwise && this.target?.width === side && place.distanceTo(eye) < serves;
  }

  /** The picture is not there any more. */
  forget(): void {
    this.taken = false;
  }

  /**
   * Takes the picture. Glass is not in it: it would mirror itself.
   * @param camera where from; near and far, metres
   * @param before called with the camera of each side, before it is drawn from
   */
  take(
    scene: Scene,
    { position: eye, near, far }: PerspectiveCamera,
    subframes: number,
    before: (side: Camera) => void,
  ): void {
    const { renderer, uniforms } = this;
    const target = this.fit(lookFor(subframes).side);
    const cube = new CubeCamera(near, far, target);
    cube.coordinateSystem = renderer.coordinateSystem;
    cube.updateCoordinateSystem();
    cube.position.copy(eye);
    cube.updateMatrixWorld(true);
    const glass: Object3D[] = [];
    scene.traverse((object) => {
      if (object instanceof Mesh && (object.material as Material).transparent) glass.push(object);
    });
    // What is being drawn cannot be looked at meanwhile.
    uniforms.surroundings.value = null;
    uniforms.mirroring.value = false;
    for (const [face, side] of (cube.children as Camera[]).entries()) {
      before(side);
      const clear = glass.filter(({ visible }) => visible);
      for (const pane of clear) pane.visible = false;
      target.texture.generateMipmaps = face === 5;
      renderer.setRenderTarget(target, face);
      renderer.clear();
      renderer.render(scene, side);
      for (const pane of clear) pane.visible = true;
    }
    uniforms.surroundings.value = target.texture;
    uniforms.mirroring.value = true;
    (uniforms.surroundingsAt.value as Vector3).copy(eye);
    this.taken = true;
  }

  private fit(side: number): WebGLCubeRenderTarget {
    if (this.target?.width === side) return this.target;
    this.target?.dispose();
    this.target = new WebGLCubeRenderTarget(side, {
      type: HalfFloatType,
      colorSpace: LinearSRGBColorSpace,
      generateMipmaps: true,
      minFilter: LinearMipmapLinearFilter,
      magFilter: LinearFilter,
    });
    return this.target;
  }

  /**
   * Who of a frame's sub-frames looks into mirrors: that costs as much as the rest of a picture, and a few are enough for
   * what is mostly soft. The sum of all weights is their count.
   */
  weigh(subframe: number, subframes: number): void {
    this.uniforms.mirrorWeight.value = mirrorWeight(subframe, subframes);
  }

  dispose(): void {
    this.target?.dispose();
  }
}
