import type { Vec3 } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import type { PictureSize, Stance } from '@eskovan/render';
import { create } from 'zustand';
import { turns } from './in-turn.ts';
import { glanceSource, sceneKey, type PickedSurface, type PictureScene } from './source.ts';
import { onRenewed, orFailed, pictureWorker } from './worker-link.ts';

interface PictureState {
  /** Key of the scene that can be drawn now, perhaps only as a glance; see `sceneKey`. */
  drawable: string | null;
  /** Key of the scene that is there as a whole. */
  loaded: string | null;
  /** What stands in the scene that is there as a whole: see `geometryKey`. */
  geometry: string | null;
  loading: boolean;
  error: string | null;
  /** How often the graphics card was lost and came back: what was shown is drawn again. */
  renewed: number;
}

export const usePictureState = create<PictureState>()(() => ({
  drawable: null,
  loaded: null,
  geometry: null,
  loading: false,
  error: null,
  renewed: 0,
}));

onRenewed(() => usePictureState.setState(({ renewed }) => ({ renewed: renewed + 1 })));

let wanted: string | null = null;

/** What a person is told, whatever a graphics driver or worker had to say. */
const NO_PICTURE =
  'The picture could not be made ready. Reload the page; if it stays so, this browser may have no 3D graphics (WebGL 2).';

/** Starts the worker ahead of time: its code and its graphics context are the slow part of a first picture. */
export const warmPicture = (): void => void pictureWorker();

/** At most so long a picture is waited for to be drawn, milliseconds: a hidden pane draws nothing. */
const DRAWN_SOON = 1000;
/** The first one of a site: a list of its parts, which takes the worker a while, comes after it. */
let firstPicture: Promise<unknown> = Promise.resolve();

/**
 * Makes the worker load a scene; asking again for the same one costs nothing. The scene before it goes on being shown
 * meanwhile.
 * @param opening nothing of this site is shown yet: a heavy one is shown as a glance first
 */
export async function loadPicture(scene: PictureScene, opening = false): Promise<void> {
  const key = sceneKey(scene);
  if (wanted === key) return;
  wanted = key;
  usePictureState.setState({ loading: true, error: null });
  try {
    const glance = opening ? glanceSource(scene.source) : null;
    if (glance) {
      await orFailed(pictureWorker().load({ ...scene, source: glance }));
      if (wanted !== key) return;
      const drawn = drawnSoon();
      usePictureState.setState({ drawable: key });
      await drawn;
    }
    await orFailed(pictureWorker().load(scene));
    if (wanted !== key) return;
    if (opening) firstPicture = drawnSoon();
    usePictureState.setState({ loading: false, drawable: key, loaded: key, geometry: scene.geometry });
  } catch {
    if (wanted !== key) return;
    wanted = null;
    usePictureState.setState({ loading: false, error: NO_PICTURE });
  }
}

/** When the last picture was asked for, milliseconds on the page's clock. */
let lastDrawn = -Infinity;
/** A picture that rests for so long is looked at, milliseconds. */
const RESTING = 1200;

/** Waits until nobody moves about in the picture: there is one graphics card for everything. */
export async function whileNobodyMoves(): Promise<void> {
  while (performance.now() - lastDrawn < RESTING || usePictureState.getState().loading)
    await new Promise((resolve) => setTimeout(resolve, RESTING / 4));
}

let onDrawn: (() => void) | null = null;
const drawnSoon = () =>
  Promise.race([
    new Promise<void>((resolve) => (onDrawn = resolve)),
    new Promise((resolve) => setTimeout(resolve, DRAWN_SOON)),
  ]);

export async function drawPicture(sample: CameraSample, size: PictureSize, subframes: number) {
  lastDrawn = performance.now();
  const drawn = await orFailed(pictureWorker().draw(sample, size, subframes));
  onDrawn?.();
  onDrawn = null;
  return drawn;
}

/** A picture that is small, and shows enough of how light it is. */
const LIGHT_OF: PictureSize = { width: 160, height: 90 };

/**
 * How many stops darker a picture has to be until no more than a part of it burns out.
 * @param aspect width over height
 */
export const stopsToDraw = (sample: CameraSample, aspect: number, part: number): Promise<number> =>
  orFailed(pictureWorker().stopsToDraw(sample, { ...LIGHT_OF, width: Math.round(aspect * LIGHT_OF.height) }, part));

/** A sharp picture that is being drawn is left: something else is waited for. */
export const leaveSharpPicture = (): void => void pictureWorker().giveWay();

/**
 * A small finished picture. It gives way to what is shown, and is begun again when nobody moves about.
 * @throws Error where another scene is shown by then
 */
export async function drawStill(sample: CameraSample, size: PictureSize, subframes: number): Promise<Blob> {
  const scene = wanted;
  for (;;) {
    const drawn = await orFailed(pictureWorker().still(sample, size, subframes, 'image/webp'));
    if (wanted !== scene) throw new Error('Something else is shown by now.');
    if (drawn) return drawn;
    await whileNobodyMoves();
  }
}

const inTurn = turns();

/**
 * A small picture of the scene that is shown, when its turn comes: one after the other, while nobody moves about.
 * @param scene its name, see `sceneKey`
 * @param isAsked asked when its turn has come
 * @returns null where another scene is shown when its turn has come, or it is not asked for any more
 * @throws Error where another scene is shown when it is drawn
 */
export const drawStillInTurn = (
  scene: string,
  sample: CameraSample,
  size: PictureSize,
  subframes: number,
  isAsked: () => boolean,
): Promise<Blob | null> =>
  inTurn(async () => {
    await whileNobodyMoves();
    const isShown = wanted === scene && usePictureState.getState().loaded === scene;
    return isShown && isAsked() ? drawStill(sample, size, subframes) : null;
  });

/**
 * The nearest surface along a ray, and the part it belongs to.
 * @param time seconds into the move that the picture shows: where moving things are
 */
export const pickSurface = (origin: Vec3, direction: Vec3, time = 0): Promise<PickedSurface | null> =>
  pictureWorker().pick(origin, direction, time);

/** The line of edges of what was pressed that is nearest to the press; null where it has none. */
export const edgeOf = ({ model, name, rest }: PickedSurface) => pictureWorker().edge(model, name, rest);

/** What is met along a ray of the picture within its reach, metres. */
export async function pickSeen(
  { from, direction, reach }: { from: Vec3; direction: Vec3; reach: number },
  time = 0,
): Promise<PickedSurface | null> {
  const hit = await pickSurface(from, direction, time);
  return hit && Math.hypot(...hit.point.map((value, k) => value - from[k]!)) <= reach ? hit : null;
}

export const standPerson = (stance: Stance | null) => pictureWorker().standPerson(stance);
/** Draws the outline of some parts of a model, by name. */
export const markParts = (model: string, names: readonly string[]) => pictureWorker().mark(model, names);
/** Parts of what the worker holds; null where that is something else by now. */
export async function listParts(geometry?: string) {
  await firstPicture;
  return pictureWorker().parts(geometry);
}
export const listMovements = (geometry?: string) => pictureWorker().movements(geometry);
