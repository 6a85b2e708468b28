import type { SiteLight } from '@eskovan/core/document';
import type { Camera, Group, PerspectiveCamera, Scene, WebGLRenderer } from 'three';
import type { FinishUniforms } from '../scene/finish.ts';
import { ContactShade } from './contact-shade.ts';
import { DepthPass } from './depth-pass.ts';
import type { PictureSize } from './picture-size.ts';
import { Gathered } from './gathered.ts';
import { SunShadow, type ShadowUse } from './sun-shadow.ts';
import { Surroundings } from './surroundings.ts';

/** What finished pictures have beyond the bake: the sun's shadow drawn anew, darker corners, and what is mirrored. */
export class FinishPass {
  readonly uniforms: FinishUniforms;
  private readonly shadow: SunShadow;
  private readonly contact: ContactShade;
  private readonly surroundings: Surroundings;
  private readonly depth: DepthPass;
  /** Light that was gathered for one picture. */
  readonly gathered = new Gathered();

  constructor(renderer: WebGLRenderer, light: Pick<SiteLight, 'sun' | 'sky'>) {
    this.depth = new DepthPass(renderer);
    this.shadow = new SunShadow(this.depth);
    this.contact = new ContactShade(renderer, this.depth);
    this.surroundings = new Surroundings(renderer);
    this.shadow.setLight(light);
    this.uniforms = {
      ...this.shadow.uniforms,
      ...this.contact.uniforms,
      ...this.surroundings.uniforms,
      ...this.gathered.uniforms,
    };
  }

  /** A frame begins: what moves may be somewhere else. */
  start(): void {
    this.contact.start();
  }

  /** Makes the sun's shadow current for one sub-frame, and how much of it is mirrored. */
  castShadow(model: Group, camera: PerspectiveCamera, as: ShadowUse): void {
    this.shadow.use(model, camera.position, as);
    this.surroundings.weigh(as.subframe, as.subframes);
  }

  /** Makes dark corners current for one sub-frame: of what shows before its camera. */
  shadeContacts(model: Group, camera: PerspectiveCamera, size: PictureSize): void {
    this.contact.use(model, camera, size);
  }

  /** Draws what is nearest into the picture's depth, where it costs more to work out what is hidden after all. */
  ahead(model: Group, camera: PerspectiveCamera): void {
    this.depth.ahead(model, camera);
  }

  /**
   * Must the surroundings of the eye be looked at anew? Once a frame is enough, its sub-frames differ by parts of a pixel,
   * and often for several.
   */
  mustLookAround(camera: PerspectiveCamera, subframes: number, otherwise: boolean): boolean {
    return !this.surroundings.serves(camera.position, subframes, otherwise);
  }

  /**
   * Looks around the eye. What is seen must not be exposed.
   * @param before called with each of the cameras, before it is drawn from
   */
  lookAround(scene: Scene, camera: PerspectiveCamera, subframes: number, before: (side: Camera) => void): void {
    this.surroundings.take(scene, camera, subframes, before);
  }

  /** Nothing that was drawn ahead is there any more. */
  forget(): void {
    this.shadow.forget();
    this.contact.start();
    this.surroundings.forget();
  }

  dispose(): void {
    this.gathered.clear();
    this.surroundings.dispose();
    this.shadow.dispose();
    this.contact.dispose();
    this.depth.dispose();
  }
}
