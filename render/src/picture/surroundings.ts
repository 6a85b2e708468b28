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
  type Scene,
  type Vector3,
  type WebGLRenderer,
} from 'three';
import { SURROUNDINGS_SIDE, type MirrorUniforms } from '../scene/mirror.ts';

/** One sub-frame of so many looks into mirrors, but never fewer than two. */
const ONE_OF = 4;

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
    mirroring: { value: false },
    mirrorWeight: { value: 1 },
  };
  private readonly target = new WebGLCubeRenderTarget(SURROUNDINGS_SIDE, {
    type: HalfFloatType,
    colorSpace: LinearSRGBColorSpace,
    generateMipmaps: true,
    minFilter: LinearMipmapLinearFilter,
    magFilter: LinearFilter,
  });

  constructor(private readonly renderer: WebGLRenderer) {}

  /**
   * Takes the picture. Glass is not in it: it would mirror itself.
   * @param near metres
   * @param far metres
   */
  take(scene: Scene, eye: Vector3, { near, far }: { near: number; far: number }): void {
    const { renderer, target, uniforms } = this;
    const cube = new CubeCamera(near, far, target);
    cube.coordinateSystem = renderer.coordinateSystem;
    cube.updateCoordinateSystem();
    cube.position.copy(eye);
    cube.updateMatrixWorld(true);
    const glass: Object3D[] = [];
    scene.traverseVisible((object) => {
      if (object instanceof Mesh && (object.material as Material).transparent) glass.push(object);
    });
    for (const pane of glass) pane.visible = false;
    // What is being drawn cannot be looked at meanwhile.
    uniforms.surroundings.value = null;
    uniforms.mirroring.value = false;
    for (const [face, camera] of cube.children.entries()) {
      target.texture.generateMipmaps = face === 5;
      renderer.setRenderTarget(target, face);
      renderer.clear();
      renderer.render(scene, camera as Camera);
    }
    for (const pane of glass) pane.visible = true;
    uniforms.surroundings.value = target.texture;
    uniforms.mirroring.value = true;
  }

  /**
   * Who of a frame's sub-frames looks into mirrors: that costs as much as the rest of a picture, and a few are enough for
   * what is mostly soft. The sum of all weights is their count.
   */
  weigh(subframe: number, subframes: number): void {
    this.uniforms.mirrorWeight.value = mirrorWeight(subframe, subframes);
  }

  dispose(): void {
    this.target.dispose();
  }
}
