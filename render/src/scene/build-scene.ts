import type { Dimmer, SiteMotion } from '@eskovan/core/action';
import type { Look, SiteLight } from '@eskovan/core/document';
import { countTriangles, type SceneModel } from '@eskovan/core/format';
import { dimmerOf, MOST_LAYERS } from '@eskovan/core/site';
import { daylight } from '@eskovan/core/survey';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  Float16BufferAttribute,
  FrontSide,
  Group,
  LineSegments,
  Mesh,
  MeshBasicMaterial,
  type Material,
  type ShaderMaterial,
  type Texture,
} from 'three';
import { Breath } from './breath.ts';
import { addPart, cellFor, lookOf, standingKey, usesUvs, type Chunk } from './chunks.ts';
import { ClusterLevels, type CellLevels } from './clusters.ts';
import { Covers } from './covers.ts';
import type { DimmedGlow, MeshShares } from './dimmed.ts';
import { makeShining, type Glow } from './glow.ts';
import { makeFinish, type FinishUniforms } from './finish.ts';
import { buildLineWork } from './line-work.ts';
import { makePane } from './mirror.ts';
import { levelShares, Thinner, type LevelShares } from './stand-in.ts';
import { makeRadiant, toneUniforms, type ToneUniforms } from './tone.ts';

export interface SceneOptions {
  look: Look;
  /** Stops that every picture is lighter than it would be by itself; lines on paper have none. */
  exposure: number;
  /** What it is lit by. */
  light: SiteLight;
  /** For finished pictures: the sun with a shadow from a map and darker corners, as these uniforms hand them over. */
  finish?: FinishUniforms;
  /** Exposure, as it is set for every picture. */
  tone?: ToneUniforms;
  /** What moves, and with what; without it everything stands still. */
  motion?: SiteMotion;
  /** What dims lamps, in the order of the shares in the parts' light. */
  dimmers?: readonly Dimmer[];
}

/**
 * Builds what is drawn: geometry merged by look, colours finished per vertex. Triangles lie in clusters, of which pictures
 * draw what they show (see `picture/shown-pieces.ts`); as it is built, all are shown.
 * Textured materials keep their texture and get the light as vertex colour. Copies of one mesh are not instanced:
 * each has light of its own. Parts that move together are merged among themselves.
 */
export async function buildScene(
  model: SceneModel,
  { look, light, finish: uniforms, tone = toneUniforms(), motion, dimmers = [] }: SceneOptions,
): Promise<Group> {
  const use = uniforms ? 'finished' : 'working';
  const covers = new Covers(model.textures, use);
  const day = daylight(light);
  const line = look === 'line';
  const chunks = new Map<string, Chunk>();
  const total = countTriangles(model);
  const cell = cellFor(model.parts, total);
  const breath = new Breath();
  const room = roomFor(model, dimmers, motion);
  for (const part of model.parts) {
    await breath.take();
    const material = model.materials[part.material]!;
    const finish = uniforms !== undefined && !line;
    const group = motion?.groupOf(part) ?? -1;
    const held = group >= 0 && (material.unlit || motion!.keepsLight(group));
    const dims = { dimmers: dimmers.length, dimmer: dimmerOf(dimmers, part) };
    const flat = line && material.opacity > 0.9;
    addPart(part, material, { day, flat, finish, cell, group, held, room, ...dims }, chunks);
  }
  const cells = [...chunks.values()].flatMap((chunk) => [...chunk.cells.values()]);
  const shares = levelShares(cells.map(({ indices }) => indices.length / 3));
  const looks = new Map<string, Material>();
  const group = new Group();
  for (const [key, chunk] of chunks) {
    await breath.take();
    let material = looks.get(chunk.look);
    if (!material) looks.set(chunk.look, (material = await makeMaterial(chunk, covers, line, uniforms, tone)));
    const geometry = makeGeometry(chunk);
    const levels = await levelsOf(chunk, geometry, shares, breath);
    geometry.setIndex(new BufferAttribute(levels.of('moving').indices, 1));
    geometry.computeBoundingSphere();
    const mesh = new Mesh(geometry, material);
    mesh.userData['relight'] = chunk.relight?.done(mesh.geometry.getAttribute('position').array as Float32Array);
    mesh.matrixAutoUpdate = false;
    mesh.userData['levels'] = levels;
    mesh.userData['reach'] = Math.max(...[...chunk.cells.values()].map(({ reach }) => reach));
    mesh.userData['group'] = chunk.group;
    mesh.userData['held'] = chunk.held;
    mesh.userData['shares'] = sharesOf(chunk);
    if (material.transparent) mesh.renderOrder = 1;
    if (material.userData['depth']) mesh.userData['depth'] = material.userData['depth'];
    group.add(mesh);
    chunks.delete(key);
  }
  if (line) for (const lines of buildLineWork(model, motion)) group.add(lines);
  return group;
}

/** Frees everything that {@link buildScene} put on the graphics card. */
export function disposeScene(group: Group): void {
  group.traverse((object) => {
    if (!(object instanceof Mesh || object instanceof LineSegments)) return;
    (object.geometry as BufferGeometry).dispose();
    const material = object.material as MeshBasicMaterial | ShaderMaterial;
    (material.userData['depth'] as Material | undefined)?.dispose();
    if ('map' in material) material.map?.dispose();
    else for (const name of ['cover', 'glow']) (material.uniforms[name]?.value as Texture | null)?.dispose?.();
    material.dispose();
  });
}

async function makeMaterial(
  { look, finish }: Chunk,
  covers: Covers,
  behindLines: boolean,
  uniforms: FinishUniforms | undefined,
  tone: ToneUniforms,
): Promise<Material> {
  const [body, sides, cover, cut, shines, dimmer, held, layer] = look.split('|') as [
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
  ];
  const texture = cover === 'plain' ? null : await covers.of(cover.slice('texture:'.length));
  const cutOut = cut ? Number(cut.slice('cut:'.length)) : 0;
  const glow = shines ? await glowOf(shines, covers) : null;
  const glass = body.startsWith('glass:');
  const side = sides === 'double' ? DoubleSide : FrontSide;
  const shared = finish && uniforms ? { ...uniforms, ...tone } : null;
  const opacity = glass ? Number(body.slice(6)) / 100 : 1;
  if (shared && glass && !texture) return inLayer(makePane(shared, opacity, sides === 'double'), layer, false);
  const made =
    shared && !glass
      ? makeFinish(shared, sides === 'double', { cover: texture, cutOut, glow }, held !== '')
      : new MeshBasicMaterial({
          vertexColors: true,
          fog: false,
          side,
          map: texture,
          alphaTest: cutOut,
          transparent: glass,
          opacity,
          depthWrite: !glass,
        });
  inLayer(made, layer, behindLines);
  if (made instanceof MeshBasicMaterial) {
    if (glow) makeShining(made, tone, glow);
    else makeRadiant(made, tone);
  }
  if (glow && dimmer) {
    const dimmed: DimmedGlow = {
      dimmer: Number(dimmer.slice('dimmer:'.length)),
      whole: [...glow.color],
      now: glow.color,
    };
    made.userData['dimmed'] = dimmed;
  }
  // Shadows and dark corners have the outline of what is cut out, too.
  if (cutOut > 0 && texture)
    made.userData['depth'] = new MeshBasicMaterial({
      side: DoubleSide,
      colorWrite: false,
      map: texture,
      alphaTest: cutOut,
    });
  return made;
}

/**
 * What lies on others in one plane is drawn in front of them: by some units of depth, and by a part of a pixel where the
 * plane is seen from aside. Lines lie on the surfaces that they bound, whatever those lie on: the surfaces step back.
 */
function inLayer<T extends Material>(material: T, look: string, behindLines: boolean): T {
  const layer = Number(look.slice('layer:'.length));
  if (layer === 0 && !behindLines) return material;
  material.polygonOffset = true;
  material.polygonOffsetFactor = (behindLines ? 1.5 : 0) - 0.1 * layer;
  material.polygonOffsetUnits = (behindLines ? 2 + 4 * MOST_LAYERS : 0) - 4 * layer;
  return material;
}

async function glowOf(shines: string, covers: Covers): Promise<Glow | null> {
  const [image, r, g, b] = shines.slice('glow:'.length).split(',').map(Number) as [number, number, number, number];
  const map = await covers.of(`${image},`);
  return map && { map, color: [r, g, b] };
}

const sharesOf = ({ shares, finish }: Chunk): MeshShares => ({
  color: shares?.done() ?? null,
  ambient: finish?.shares() ?? null,
});

function makeGeometry(chunk: Chunk): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(chunk.positions.done(), 3));
  geometry.setAttribute('color', new Float16BufferAttribute(chunk.colors.done(), 4));
  if (usesUvs(chunk.look)) geometry.setAttribute('uv', new BufferAttribute(chunk.uvs.done(), 2));
  chunk.finish?.addTo(geometry);
  return geometry;
}

/** A chunk's triangles in clusters, and coarser stand-ins of them in a heavy site. */
async function levelsOf(
  chunk: Chunk,
  geometry: BufferGeometry,
  shares: LevelShares | null,
  breath: Breath,
): Promise<ClusterLevels> {
  const [positions, colors] = ['position', 'color'].map((name) => geometry.getAttribute(name).array) as [
    Float32Array,
    Uint16Array,
  ];
  const thinner = shares && new Thinner(positions, colors, shares);
  const cells: CellLevels[] = [];
  for (const { indices, reach } of chunk.cells.values()) {
    await breath.take();
    const whole = indices.done();
    const levels = thinner ? await thinner.levelsOf(whole) : { moving: whole, resting: whole, whole };
    cells.push({ reach, ...levels });
  }
  return new ClusterLevels(cells, positions);
}

/** Vertices that stand with each look, at most. */
function roomFor(
  { parts, materials }: SceneModel,
  dimmers: readonly Dimmer[],
  motion?: SiteMotion,
): Map<string, number> {
  const room = new Map<string, number>();
  for (const part of parts) {
    if ((motion?.groupOf(part) ?? -1) >= 0) continue;
    const key = standingKey(part, lookOf(materials[part.material]!, dimmerOf(dimmers, part), false, part.layer));
    room.set(key, (room.get(key) ?? 0) + part.positions.length / 3);
  }
  return room;
}
