import type { SiteLight } from '@eskovan/core/document';
import { GOLDEN_ANGLE } from '@eskovan/core/geometry';
import { daylight } from '@eskovan/core/survey';
import { Matrix4, OrthographicCamera, Vector3, type Camera, type Group, type WebGLRenderTarget } from 'three';
import type { ShadowUniforms } from '../scene/finish.ts';
import { depthTarget, disposeDepth, type DepthPass } from './depth-pass.ts';
import { isMoving, type MovingMeshes } from '../scene/moving.ts';

/** Half the side of the square around the eye that has shadows of its own; beyond it the baked ones serve. Metres. */
const REACH = 36;
/** Pixels of a map's side: four and a half centimetres each. */
const SIDE = 1600;
/** Maps kept: as many directions of the sun as a frame's sub-frames use, at most. */
const MOST_MAPS = 6;
/** Maps are good until the eye has gone this far, metres. */
const STEP = 9;
/**
 * The sun's disc seen from the ground, radians (half of 0.53°, common knowledge), made larger three times for the
 * haze about it: shadows of trees and roofs are softer than geometry alone would have them (by eye, no source).
 */
const HALF_DISC = (0.5 * 0.53 * Math.PI) / 180;
const HAZE = 3;

/** A sub-frame of a picture that the sun shines in. */
export interface ShadowUse {
  subframe: number;
  subframes: number;
  moving: MovingMeshes | null;
  /** Called with the sun's camera, before it is drawn from: what the picture does not show throws shadows, too. */
  before: (sun: Camera) => void;
}

/**
 * Shadow maps of the sun around the eye. Each sub-frame sees the sun from another point of its disc, so that their
 * mean has soft edges; a map is drawn once and serves all frames until the eye has moved on.
 */
export class SunShadow {
  readonly uniforms: ShadowUniforms = {
    shadowMap: { value: null },
    movingMap: { value: null },
    movingNear: { value: false },
    shadowMatrix: { value: new Matrix4() },
    shadowCentre: { value: new Vector3() },
    shadowTexel: { value: 1 / SIDE },
    shadowSpread: { value: false },
    shadowReach: { value: REACH },
    sun: { value: new Vector3(0, 1, 0) },
    sunColor: { value: new Vector3() },
  };
  private readonly maps = new Map<number, { target: WebGLRenderTarget; matrix: Matrix4; of: string }>();
  /** What moves is drawn for every sub-frame anew, into a map of its own. */
  private moving: WebGLRenderTarget | null = null;
  private readonly camera = new OrthographicCamera(-REACH, REACH, REACH, -REACH, 1, 4 * REACH + 200);
  private readonly sun = new Vector3();

  constructor(private readonly depth: DepthPass) {}

  setLight({ sun, sky }: Pick<SiteLight, 'sun' | 'sky'>): void {
    this.sun.fromArray(sun);
    (this.uniforms.sun.value as Vector3).copy(this.sun);
    (this.uniforms.sunColor.value as Vector3).fromArray(daylight({ sun, sky }).sun);
    this.forget();
  }

  /** All maps are drawn anew. */
  forget(): void {
    for (const map of this.maps.values()) map.of = '';
  }

  /** Makes the maps of one sub-frame current, drawing them where there are none for this place. */
  use(model: Group, eye: Vector3, { subframe, subframes, moving, before }: ShadowUse): void {
    // The mean of few maps shows the steps of each.
    this.uniforms.shadowSpread.value = subframes < MOST_MAPS;
    const index = subframe % MOST_MAPS;
    const centre = new Vector3(
      Math.round(eye.x / STEP) * STEP,
      Math.round(eye.y / STEP) * STEP,
      Math.round(eye.z / STEP) * STEP,
    );
    const of = centre.toArray().join();
    let map = this.maps.get(index);
    if (!map) this.maps.set(index, (map = { target: depthTarget(SIDE, SIDE), matrix: new Matrix4(), of: '' }));
    if (map.of !== of) {
      this.aim(centre, index);
      before(this.camera);
      map.matrix.multiplyMatrices(this.camera.projectionMatrix, this.camera.matrixWorldInverse);
      this.depth.draw(model, this.camera, map.target, (piece) => !isMoving(piece));
      map.of = of;
    }
    const near = moving?.isNear(centre, REACH) ?? false;
    if (near) {
      this.moving ??= depthTarget(SIDE, SIDE);
      this.aim(centre, index);
      moving!.atRest(() => this.depth.draw(model, this.camera, this.moving!, isMoving));
      this.uniforms.movingMap.value = this.moving.depthTexture;
    }
    this.uniforms.movingNear.value = near;
    this.uniforms.shadowMap.value = map.target.depthTexture;
    (this.uniforms.shadowMatrix.value as Matrix4).copy(map.matrix);
    (this.uniforms.shadowCentre.value as Vector3).copy(centre);
  }

  dispose(): void {
    for (const { target } of this.maps.values()) disposeDepth(target);
    this.maps.clear();
    disposeDepth(this.moving);
  }

  /** Looks from one point of the sun's disc at the surroundings of a place. */
  private aim(centre: Vector3, index: number): void {
    const { camera } = this;
    camera.position.copy(centre).addScaledVector(this.pointOfDisc(index), 2 * REACH + 100);
    camera.up.set(0, Math.abs(this.sun.y) > 0.98 ? 0 : 1, Math.abs(this.sun.y) > 0.98 ? 1 : 0);
    camera.lookAt(centre);
    camera.updateMatrixWorld(true);
  }

  /** A direction within the sun's disc, evenly spread by the golden angle. */
  private pointOfDisc(index: number): Vector3 {
    const radius = HALF_DISC * HAZE * Math.sqrt((index + 0.5) / MOST_MAPS);
    const turn = index * GOLDEN_ANGLE;
    const side = new Vector3(0, 1, 0).cross(this.sun);
    if (side.lengthSq() < 1e-6) side.set(1, 0, 0);
    side.normalize();
    const up = new Vector3().crossVectors(this.sun, side);
    return this.sun
      .clone()
      .addScaledVector(side, radius * Math.cos(turn))
      .addScaledVector(up, radius * Math.sin(turn))
      .normalize();
  }
}
