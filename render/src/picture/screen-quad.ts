import {
  AddEquation,
  CustomBlending,
  Mesh,
  OneFactor,
  OrthographicCamera,
  PlaneGeometry,
  Scene,
  ShaderMaterial,
  type IUniform,
  type WebGLRenderer,
  type WebGLRenderTarget,
} from 'three';

/** A face that fills a target: what is worked out for every pixel of it is drawn on this. */
export class ScreenQuad {
  private readonly scene = new Scene();
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  private readonly mesh = new Mesh<PlaneGeometry, ShaderMaterial>(new PlaneGeometry(2, 2));

  constructor(private readonly renderer: WebGLRenderer) {
    this.mesh.frustumCulled = false;
    this.scene.add(this.mesh);
  }

  /** @param to null draws on the canvas */
  draw(material: ShaderMaterial, to: WebGLRenderTarget | null): void {
    this.mesh.material = material;
    this.renderer.setRenderTarget(to);
    this.renderer.render(this.scene, this.camera);
  }

  dispose(): void {
    this.mesh.geometry.dispose();
  }
}

/** Hands the fragment shader its place in the target, 0…1 from its lower left corner. */
export const SCREEN_VERTEX = `
  varying vec2 place;
  void main() {
    place = uv;
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }`;

interface ScreenShader {
  fragmentShader: string;
  vertexShader?: string;
  uniforms: Record<string, IUniform>;
  /** What is drawn is added to what is there. */
  adds?: boolean;
}

/** A material for a {@link ScreenQuad}. */
export const screenMaterial = ({
  fragmentShader,
  vertexShader = SCREEN_VERTEX,
  uniforms,
  adds = false,
}: ScreenShader) =>
  new ShaderMaterial({
    vertexShader,
    fragmentShader,
    uniforms,
    depthTest: false,
    depthWrite: false,
    ...(adds ? { blending: CustomBlending, blendEquation: AddEquation, blendSrc: OneFactor, blendDst: OneFactor } : {}),
  });
