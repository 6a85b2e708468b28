/** What can be taken away while it draws: a graphics card, by a driver that starts again or another program. */
export interface Breakable {
  readonly lost: boolean;
  /** Resolves when it can be drawn with again. */
  whenUsable(): Promise<void>;
}

/** A card that has not come back after this is gone, milliseconds. */
const PATIENCE = 15_000;
/** A card is gone a moment before it says so, milliseconds. */
const MOMENT = 40;

/** Nothing can be drawn any more; its words are for people. */
export class GraphicsGone extends Error {
  override name = 'GraphicsGone';
  constructor() {
    super('The graphics card was taken away and did not come back. Reload the page; what was made is kept.');
  }
}

interface UnbrokenOptions<T> {
  /** Nothing was drawn, whatever the card says. */
  isEmpty?: (made: T) => boolean;
  /** Told about what was drawn in vain. */
  wasted?: (made: T) => void;
  /** milliseconds */
  patience?: number;
}

/**
 * Draws until nothing was lost meanwhile: what is drawn without a card is empty.
 * @throws GraphicsGone when the card does not come back
 */
export async function unbroken<T>(
  picture: Breakable,
  draw: () => T | Promise<T>,
  { isEmpty = () => false, wasted, patience = PATIENCE }: UnbrokenOptions<T> = {},
): Promise<T> {
  const until = performance.now() + patience;
  for (;;) {
    if (picture.lost) await withPatience(picture.whenUsable(), until - performance.now());
    const made = await draw();
    if (!picture.lost && !isEmpty(made)) return made;
    wasted?.(made);
    if (performance.now() > until) throw new GraphicsGone();
    await new Promise((resolve) => setTimeout(resolve, MOMENT));
  }
}

/** Pixels that were read when there was nothing to read from: every picture is opaque. */
export const noPixels = (pixels: Uint8Array): boolean => pixels[3] === 0;

async function withPatience(usable: Promise<void>, patience: number): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const gone = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new GraphicsGone()), patience);
  });
  await Promise.race([usable, gone]).finally(() => clearTimeout(timer));
}
