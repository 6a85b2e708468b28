import {
  DepthTexture,
  DoubleSide,
  FrontSide,
  Mesh,
  MeshBasicMaterial,
  NearestFilter,
  Scene,
  ShaderMaterial,
  UnsignedIntType,
  WebGLRenderTarget,
  type Camera,
  type Group,
  type Material,
  type WebGLRenderer,
} from 'three';
import { FINISH_PLACE } from '../scene/finish.ts';

const PLACE_VERTEX = `
  invariant gl_Position;
  void main() {
    ${FINISH_PLACE}
  }`;
const NOTHING = 'void main() { gl_FragColor = vec4(0.0); }';

/** Draws how far away things are, and nothing else of them. */
export class DepthPass {
  private readonly scene = new Scene();
  private readonly depthOnly = new MeshBasicMaterial({ side: DoubleSide, colorWrite: false });
  private readonly finished = [FrontSide, DoubleSide].map(
    (side) => new ShaderMaterial({ vertexShader: PLACE_VERTEX, fragmentShader: NOTHING, side, colorWrite: false }),
  );

  constructor(private readonly renderer: WebGLRenderer) {}

  /**
   * Draws some solid pieces of a model: light goes through glass, and lines have no body. What is cut out of a picture has
   * a depth of its own outline.
   */
  draw(model: Group, camera: Camera, target: WebGLRenderTarget, wanted: (piece: Mesh) => boolean = () => true): void {
    this.renderer.setRenderTarget(target);
    this.renderer.clear();
    this.drawAs(
      model,
      camera,
      (piece) => wanted(piece) && ((piece.userData['depth'] as Material | undefined) ?? this.depthOnly),
    );
  }

  /**
   * Draws the depth of finished surfaces into the picture itself: what is hidden is then not worked out. What is cut out
   * of a picture is left to the picture, as is all that other materials put elsewhere in depth.
   */
  ahead(model: Group, camera: Camera): void {
    this.drawAs(
      model,
      camera,
      ({ material, userData, visible }) =>
        visible &&
        material instanceof ShaderMaterial &&
        !userData['depth'] &&
        this.finished[material.side === DoubleSide ? 1 : 0],
    );
  }

  /** Draws solid pieces in other materials, which are given back; false leaves a piece out. */
  private drawAs(model: Group, camera: Camera, materialOf: (piece: Mesh) => Material | false | undefined): void {
    const left = (model.children as Mesh[]).map((child) => ({
      child,
      visible: child.visible,
      material: child.material as Material,
    }));
    for (const { child, material } of left) {
      const other = child instanceof Mesh && !material.transparent && materialOf(child);
      child.visible = !!other;
      if (other) child.material = other;
    }
    const parent = model.parent;
    this.scene.add(model);
    this.renderer.render(this.scene, camera);
    for (const { child, visible, material } of left) Object.assign(child, { visible, material });
    parent?.add(model);
  }

  dispose(): void {
    this.depthOnly.dispose();
    for (const material of this.finished) material.dispose();
  }
}

const NEAREST = { minFilter: NearestFilter, magFilter: NearestFilter } as const;

/** Room for a depth pass, in pixels; see its `depthTexture`. */
export function depthTarget(width: number, height: number): WebGLRenderTarget {
  const depthTexture = Object.assign(new DepthTexture(width, height, UnsignedIntType), NEAREST);
  return new WebGLRenderTarget(width, height, { ...NEAREST, depthTexture });
}

export function disposeDepth(target: WebGLRenderTarget | null): void {
  target?.depthTexture?.dispose();
  target?.dispose();
}
