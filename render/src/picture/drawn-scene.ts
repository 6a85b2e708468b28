import type { Dimmer, SiteMotion } from '@eskovan/core/action';
import type { Bounds } from '@eskovan/core/document';
import type { SceneModel, ScenePart } from '@eskovan/core/format';
import { Box3, Color, Fog, Scene, Vector3, type Camera, type Group, type LineSegments, type Mesh } from 'three';
import { disposeScene, type SceneOptions } from '../scene/build-scene.ts';
import { DimmedMeshes } from '../scene/dimmed.ts';
import { GroundShadow } from '../scene/ground-shadow.ts';
import { makeMark } from '../scene/mark.ts';
import { MovingMeshes } from '../scene/moving.ts';
import { ScalePerson } from '../scene/person.ts';
import { RelitMeshes } from '../scene/relit.ts';
import { setAir } from '../scene/air.ts';
import { makeSky, paintSky } from '../scene/sky.ts';
import type { ToneUniforms } from '../scene/tone.ts';
import { disposeCutFaces, makeCutFaces } from './cut-faces.ts';
import { ShownPieces } from './shown-pieces.ts';

/** What stands before the camera: the model with what moves and dims in it, its ground, the sky, a person, a mark. */
export class DrawnScene {
  readonly scene = new Scene();
  readonly person: ScalePerson;
  private readonly sky: ReturnType<typeof makeSky>;
  private shown: Shown | null = null;
  private movingMeshes: MovingMeshes | null = null;
  private ground: GroundShadow | null = null;
  private extent: Bounds = NOTHING;
  /** What a cut lays open; made when something is cut first. */
  private cut: Group | null = null;
  private marked: { lines: LineSegments; group: number } | null = null;

  constructor(private readonly tone: ToneUniforms) {
    this.sky = makeSky(tone);
    this.scene.add(this.sky);
    // Only lines take it: a pen presses less on what is far away.
    this.scene.fog = new Fog(new Color().setRGB(0.9, 0.9, 0.89), 6, 110);
    this.person = new ScalePerson(this.scene, tone);
  }

  get model(): Group | null {
    return this.shown?.group ?? null;
  }

  get moving(): MovingMeshes | null {
    return this.movingMeshes;
  }

  get dimmed(): DimmedMeshes | null {
    return this.shown?.dimmed ?? null;
  }

  /** Extent of everything that is drawn, metres. */
  get bounds(): Bounds {
    return this.extent;
  }

  /** Nothing of the model is cut away: what nearer faces cover is not seen. */
  get whole(): boolean {
    return this.cut === null;
  }

  get pieces(): ShownPieces | null {
    return this.shown?.pieces ?? null;
  }

  /** Puts a model, and what was built of it, in the place of the one before. */
  setModel(made: { group: Group; model: SceneModel } | null, options: SceneOptions): void {
    const { motion, dimmers, light } = options;
    if (this.shown) {
      this.layOpen(false);
      this.scene.remove(this.shown.group);
      disposeScene(this.shown.group);
    }
    this.extent = made ? boundsOfGroup(made.group) : NOTHING;
    this.shown = made && {
      group: made.group,
      pieces: new ShownPieces(made.group, made.model, (part) => (motion?.groupOf(part) ?? -1) < 0),
      dimmed: dimmers?.length ? new DimmedMeshes(made.group, dimmers) : null,
      relit: motion ? new RelitMeshes(made.group, made.model, motion, light) : null,
    };
    this.setMotion(motion);
    if (made) this.scene.add(made.group);
    const paper = options.look === 'line';
    this.setGround(
      made && !paper ? GroundShadow.of(made.model, light, (part) => motion?.litGroupOf(part) ?? -1) : null,
    );
    setAir(this.tone.air, paper ? null : light);
    paintSky(this.sky, light, paper ? 'paper' : this.ground ? 'plain ground' : 'landscape');
    this.person.use(paper ? null : light);
  }

  /** Lets the same parts move in another way, and the same lamps dim; see `SiteMotion.layout`. */
  setMotion(motion: SiteMotion | undefined, dimmers?: readonly Dimmer[]): void {
    if (dimmers) this.dimmed?.use(dimmers);
    this.movingMeshes = this.model && motion && motion.count > 0 ? new MovingMeshes(this.model, motion) : null;
  }

  /**
   * Draws lines around some parts, over everything.
   * @param group the group that they move with; −1 where they stand still
   */
  setMarked(parts: readonly ScenePart[], group: number): void {
    if (this.marked) {
      this.scene.remove(this.marked.lines);
      this.marked.lines.geometry.dispose();
      this.marked = null;
    }
    if (parts.length === 0) return;
    this.marked = { lines: makeMark(parts), group };
    this.scene.add(this.marked.lines);
  }

  /**
   * Puts what moves where it is at a time.
   * @param time of the site, seconds
   * @param share what fades is there where more of it is there than this
   * @param fresh the light of what has moved is not waited for
   * @param cut something is cut away before the camera: what it lays open is shown
   */
  place(time: number, { share, fresh, cut }: { share: number | undefined; fresh: boolean; cut: boolean }): void {
    const { moving } = this;
    moving?.place(time, share);
    if (moving) this.ground?.follow((group) => moving.placeOf(group));
    const relit = this.shown?.relit?.follow(fresh);
    this.dimmed?.place(time, relit);
    if (this.marked) moving?.follow(this.marked.lines, this.marked.group);
    this.layOpen(cut);
  }

  /** The sky is as far away as anything can be seen. */
  followSky({ position, near, far }: Camera & { near: number; far: number }): void {
    this.sky.position.copy(position);
    this.sky.scale.setScalar((near + far) / 2);
  }

  dispose(): void {
    if (this.model) disposeScene(this.model);
  }

  /** The shadow under a model that brings no ground along. */
  private setGround(shadow: GroundShadow | null): void {
    if (this.ground) {
      this.scene.remove(this.ground.mesh);
      this.ground.dispose();
    }
    this.ground = shadow;
    if (!shadow) return;
    this.scene.add(shadow.mesh);
    // It reaches beyond what casts it.
    const { min, max } = this.extent;
    const reach = new Box3().setFromObject(shadow.mesh).union(new Box3(new Vector3(...min), new Vector3(...max)));
    this.extent = { min: reach.min.toArray(), max: reach.max.toArray() };
  }

  /** Shows the inside of what is cut, or puts it away. */
  private layOpen(cut: boolean): void {
    if (cut === (this.cut !== null) || !this.model) return;
    if (this.cut) {
      this.scene.remove(this.cut);
      disposeCutFaces(this.cut);
      this.cut = null;
    } else this.scene.add((this.cut = makeCutFaces(this.model)));
  }
}

/** What was built of a model. */
interface Shown {
  group: Group;
  pieces: ShownPieces;
  dimmed: DimmedMeshes | null;
  relit: RelitMeshes | null;
}

/** A picture of nothing still has a sky. */
const NOTHING: Bounds = { min: [-100, -100, -100], max: [100, 100, 100] };

/** Extent of everything drawn, with room for what moves and for a person beside it, metres. */
function boundsOfGroup(group: Group): Bounds {
  const box = new Box3();
  for (const child of group.children as Mesh[]) {
    child.geometry.computeBoundingBox();
    box.union(child.geometry.boundingBox!);
  }
  const size = box.getSize(new Vector3()).length();
  box.expandByScalar(Math.min(3, 0.5 * size));
  return { min: box.min.toArray(), max: box.max.toArray() };
}
