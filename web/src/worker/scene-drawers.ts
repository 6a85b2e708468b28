import { SiteMotion } from '@eskovan/core/action';
import type { SceneModel } from '@eskovan/core/format';
import { dressModel } from '@eskovan/core/site';
import { PictureRenderer } from '@eskovan/render';
import { sourceKey, type PictureScene } from '../picture/source.ts';
import { loadScene, sceneOptions } from './load-scene.ts';

/** So many scenes are ready at once: two that are drawn over each other. */
const READY = 2;

interface Ready {
  name: string;
  renderer: PictureRenderer;
  used: number;
}

/**
 * Renderers with their scenes, for pictures of several lights in turn: what was not drawn for longest makes room. Models
 * are read once, whatever they are dressed and lit as.
 */
export class SceneDrawers {
  private scenes: Readonly<Record<string, PictureScene>> = {};
  private readonly models = new Map<string, Promise<SceneModel>>();
  private readonly ready: Ready[] = [];
  private clock = 0;

  /** @param finished with everything that a render has, else as the working view */
  constructor(private readonly finished: boolean) {}

  /** The scenes that can be asked for, by name. */
  setScenes(scenes: Readonly<Record<string, PictureScene>>): void {
    this.scenes = scenes;
    const wanted = new Set(Object.values(scenes).map(({ source }) => sourceKey(source)));
    for (const key of this.models.keys()) if (!wanted.has(key)) this.models.delete(key);
  }

  /** A renderer that has a scene ready. Calls must follow each other. */
  async of(name: string): Promise<PictureRenderer> {
    const known = this.ready.find((one) => one.name === name);
    this.clock += 1;
    if (known) {
      known.used = this.clock;
      return known.renderer;
    }
    const scene = this.scenes[name];
    if (!scene) throw new Error(`the scene ${name} was not given`);
    const model = await this.modelOf(scene);
    const place = this.room();
    place.name = '';
    const motion = new SiteMotion(model, scene.actions);
    await place.renderer.setModel(dressModel(model, scene.dress), sceneOptions(scene, motion), this.finished);
    Object.assign(place, { name, used: this.clock });
    return place.renderer;
  }

  modelOf({ source }: PictureScene): Promise<SceneModel> {
    const key = sourceKey(source);
    const loading = this.models.get(key) ?? loadScene(source);
    this.models.set(key, loading);
    loading.catch(() => this.models.delete(key));
    return loading;
  }

  private room(): Ready {
    if (this.ready.length < READY) {
      const made = { name: '', renderer: new PictureRenderer(), used: 0 };
      this.ready.push(made);
      return made;
    }
    return this.ready.reduce((one, other) => (other.used < one.used ? other : one));
  }

  dispose(): void {
    for (const { renderer } of this.ready) renderer.dispose();
    this.ready.length = 0;
  }
}
