import {
  DepthTexture,
  DoubleSide,
  Mesh,
  MeshBasicMaterial,
  NearestFilter,
  Scene,
  UnsignedIntType,
  WebGLRenderTarget,
  type Camera,
  type Group,
  type Material,
  type WebGLRenderer,
} from 'three';

/** Draws how far away things are, and nothing else of them. */
export class DepthPass {
  private readonly scene = new Scene();
  private readonly depthOnly = new MeshBasicMaterial({ side: DoubleSide, colorWrite: false });

  constructor(private readonly renderer: WebGLRenderer) {}

  /** Draws some solid pieces of a model: light goes through glass, and lines have no body. */
  draw(model: Group, camera: Camera, target: WebGLRenderTarget, wanted: (piece: Mesh) => boolean = () => true): void {
    const { renderer } = this;
    const left = (model.children as Mesh[]).map((child) => ({
      child,
      visible: child.visible,
      material: child.material as Material,
    }));
    for (const { child, material } of left) {
      child.visible = child instanceof Mesh && !material.transparent && wanted(child);
      // What is cut out of a picture has a depth of its own outline.
      if (child.visible) child.material = (child.userData['depth'] as Material | undefined) ?? this.depthOnly;
    }
    const parent = model.parent;
    this.scene.add(model);
    renderer.setRenderTarget(target);
    renderer.clear();
    renderer.render(this.scene, camera);
    for (const { child, visible, material } of left) Object.assign(child, { visible, material });
    parent?.add(model);
  }

  dispose(): void {
    this.depthOnly.dispose();
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
