import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { z } from 'zod';
import { DEFAULT_SENSOR, issueWords, type Lens, type StillCamera, type Vec3 } from '../document/index.ts';
import { orientationFromAxes, toRadians } from '../geometry/index.ts';
import { FormatError, isZip, readZip } from '../format/index.ts';
import { focalLengthFor, usedSensor } from '../optics/index.ts';
import type { World } from './world.ts';

/** A view that a file brings. */
export interface BroughtView extends StillCamera {
  name: string;
  /** Width over height, where the file says it. */
  aspect: number | null;
}

export interface Brought {
  views: BroughtView[];
  /** Viewpoints that could not be used, each with its reason. */
  leftOut: string[];
}

const number = z.coerce.number().refine(Number.isFinite, 'is no number');
const vector = z.object({ X: number, Y: number, Z: number }).transform(({ X, Y, Z }): Vec3 => [X, Y, Z]);
const place = {
  CameraViewPoint: vector,
  CameraDirection: vector,
  CameraUpVector: vector,
  AspectRatio: number.optional(),
};
const perspectiveSchema = z.object({
  ...place,
  FieldOfView: number.refine((angle) => angle > 0 && angle < 180, 'is no angle'),
});
const orthogonalSchema = z.object({ ...place, ViewToWorldScale: number.refine((scale) => scale > 0, 'is no size') });

const ADVICE = 'Save it again as BCF 2.1 or 3.0.';
const SHORTEST = 1e-9;

/**
 * Views of a BIM Collaboration Format file, 2.0 to 3.0. What cannot be used of it is counted and said; one bad viewpoint
 * never stops the others.
 * @param aspect width over height of the project's pictures, for files older than 3.0, which do not say theirs
 * @throws FormatError for a file that is none, or holds no viewpoint at all
 */
export function readBcf(bytes: Uint8Array, fileName: string, world: World, aspect: number): Brought {
  if (!isZip(bytes)) throw new FormatError('wrong-type', fileName, 'it is no BCF file.', ADVICE);
  const files = readZip(bytes, fileName);
  const topics = [...files.keys()].filter((path) => path.toLowerCase().endsWith('markup.bcf'));
  if (topics.length === 0) throw new FormatError('wrong-type', fileName, 'it holds no topics.', ADVICE);
  const brought: Brought = { views: [], leftOut: [] };
  for (const path of topics) {
    const folder = path.slice(0, path.lastIndexOf('/') + 1);
    const markup = parsed(files.get(path)!);
    const title = textAt(markup, 'Markup', 'Topic', 'Title') ?? 'Without a title';
    if (!markup) brought.leftOut.push(`${path}: it is no whole XML.`);
    const named = viewpointsOf(markup);
    // Older files have one viewpoint without saying so.
    const names = named.length > 0 ? named : ['viewpoint.bcfv'];
    names.forEach((name, i) => {
      const file = files.get(folder + name);
      if (!file) {
        if (named.length > 0) brought.leftOut.push(`“${title}”: its viewpoint “${name}” is not in the file.`);
        return;
      }
      const called = names.length > 1 ? `${title} ${i + 1}` : title;
      const camera = cameraIn(parsed(file), world, aspect);
      if (typeof camera === 'string') brought.leftOut.push(`“${called}”: ${camera}`);
      else brought.views.push({ name: called.slice(0, MOST_LETTERS), ...camera });
    });
  }
  return brought;
}
/** Longest name of a row. */
const MOST_LETTERS = 120;

const LISTS = new Set(['ViewPoint', 'Viewpoints']);
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  parseTagValue: false,
  removeNSPrefix: true,
  // Nothing in these files needs entities of their own; they are a way to fill a memory.
  processEntities: { enabled: true, maxTotalExpansions: 1000 },
  isArray: (name) => LISTS.has(name),
});

type Tree = Record<string, unknown>;

function parsed(bytes: Uint8Array): Tree | null {
  const text = new TextDecoder().decode(bytes);
  if (XMLValidator.validate(text) !== true) return null;
  try {
    return parser.parse(text) as Tree;
  } catch {
    return null;
  }
}

function at(tree: unknown, ...path: string[]): unknown {
  return path.reduce<unknown>(
    (inner, key) => (typeof inner === 'object' && inner !== null ? (inner as Tree)[key] : undefined),
    tree,
  );
}

function textAt(tree: unknown, ...path: string[]): string | null {
  const value = at(tree, ...path);
  return typeof value === 'string' && value.trim() ? value.trim() : null;
}

/** Names of the viewpoint files of a topic: in the topic since 3.0, beside it before. */
function viewpointsOf(markup: Tree | null): string[] {
  const lists = [at(markup, 'Markup', 'Topic', 'Viewpoints'), at(markup, 'Markup', 'Viewpoints')].flatMap((list) =>
    Array.isArray(list) ? (list as unknown[]) : [],
  );
  const points = lists.flatMap((list) => {
    const inner = at(list, 'ViewPoint');
    return Array.isArray(inner) ? (inner as unknown[]) : [list];
  });
  return points.flatMap((point) => textAt(point, 'Viewpoint') ?? []);
}

/** The camera of a viewpoint, or why there is none. */
function cameraIn(tree: Tree | null, world: World, given: number): Omit<BroughtView, 'name'> | string {
  if (!tree) return 'its viewpoint is no whole XML.';
  const perspective = at(tree, 'VisualizationInfo', 'PerspectiveCamera');
  const orthogonal = at(tree, 'VisualizationInfo', 'OrthogonalCamera');
  if (perspective === undefined && orthogonal === undefined) return 'its viewpoint has no camera.';
  const read =
    perspective === undefined
      ? orthogonalSchema.safeParse(orthogonal, { error: issueWords })
      : perspectiveSchema.safeParse(perspective, { error: issueWords });
  if (!read.success) {
    const { path, message } = read.error.issues[0]!;
    return `its camera’s ${path.join('.') || 'data'} cannot be used (${message}).`;
  }
  const camera = read.data;
  const aspect = camera.AspectRatio && camera.AspectRatio > 0 ? camera.AspectRatio : null;
  const ahead = world.directionFrom(camera.CameraDirection);
  const up = world.directionFrom(camera.CameraUpVector);
  if (!(Math.hypot(...ahead) > SHORTEST)) return 'its camera looks nowhere.';
  const orientation = orientationFromAxes(ahead, up);
  const lens = lensOf(camera, aspect ?? given);
  if (!lens) return 'its camera sees wider or narrower than any lens here.';
  return { pose: { position: world.placeFrom(camera.CameraViewPoint), orientation }, lens, aspect };
}

function lensOf(
  camera: z.infer<typeof perspectiveSchema> | z.infer<typeof orthogonalSchema>,
  aspect: number,
): Lens | null {
  const lens: Lens = { focalLengthMm: DEFAULT_FOCAL, sensor: DEFAULT_SENSOR, shift: [0, 0] };
  if ('ViewToWorldScale' in camera) return { ...lens, parallel: camera.ViewToWorldScale };
  const focalLengthMm = focalLengthFor(toRadians(camera.FieldOfView), usedSensor(DEFAULT_SENSOR, aspect).heightMm);
  return focalLengthMm >= 1 && focalLengthMm <= 2000 ? { ...lens, focalLengthMm } : null;
}
/** What a parallel view has if it is given a lens, mm. */
const DEFAULT_FOCAL = 35;
