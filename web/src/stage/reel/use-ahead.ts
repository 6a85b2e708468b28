import type { PictureSize } from '@eskovan/render';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { AheadDesk, type AheadWish } from '../../picture/ahead.ts';
import { AheadImages } from '../../picture/ahead-images.ts';
import type { OpenReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import type { ReelLink } from './reel-link.ts';
import type { ReelScenes } from './use-reel-scenes.ts';

/** Pixels of a frame that is kept: 640 × 360, or as many in another ratio. */
const PIXELS = 640 * 360;
/** What is drawn already is told of no more often than this, milliseconds. */
const TOLD = 200;

export const aheadSize = (aspect: number): PictureSize => {
  const width = 2 * Math.round(Math.sqrt(PIXELS * aspect) / 2);
  return { width, height: 2 * Math.round(width / aspect / 2) };
};

/** Frames that are drawn before they are looked at. */
export interface Ahead {
  desk: AheadDesk;
  images: AheadImages;
  /** Asks again for what is shown whenever more is there. */
  subscribe: (tell: () => void) => () => void;
  version: () => number;
}

function makeAhead(size: PictureSize): Ahead & { close: () => void } {
  const listeners = new Set<() => void>();
  let version = 0;
  let timer: ReturnType<typeof setTimeout> | null = null;
  const changed = () => {
    timer ??= setTimeout(() => {
      timer = null;
      version += 1;
      listeners.forEach((tell) => tell());
    }, TOLD);
  };
  const desk = new AheadDesk(size, changed);
  const images = new AheadImages(desk.store, changed);
  return {
    desk,
    images,
    subscribe: (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    version: () => version,
    close: () => {
      if (timer) clearTimeout(timer);
      desk.close();
      images.close();
    },
  };
}

/** Draws the reel ahead: what the strip shows first, then from where one is to its end, then the rest. */
export function useAhead(
  open: OpenReel | null,
  link: ReelLink | null,
  scenes: ReelScenes,
  stripFrames: readonly number[],
): Ahead | null {
  const [ahead, setAhead] = useState<ReturnType<typeof makeAhead> | null>(null);
  const aspect = open?.aspect ?? 16 / 9;
  useEffect(() => {
    const made = makeAhead(aheadSize(aspect));
    setAhead(made);
    return () => made.close();
  }, [aspect]);
  useEffect(() => {
    ahead?.desk.setScenes(scenes.scenes);
  }, [ahead, scenes.scenes]);
  const keys = useReelFacts((state) => state.keys);
  const rate = open?.rate;
  useEffect(() => {
    if (!ahead || !link || !rate || keys.length === 0) return;
    const wish = (frame: number): AheadWish => ({ key: keys[frame]!, picture: () => link.picture(frame) });
    const shown = stripFrames.filter((frame) => frame < keys.length).map(wish);
    const wantFrom = (second: number) => {
      const from = Math.min(keys.length - 1, Math.floor((second * rate.num) / rate.den));
      const rest = Array.from({ length: keys.length }, (_, i) => wish((from + i) % keys.length));
      ahead.desk.want([...shown, ...rest]);
    };
    // A second is near enough: the order of drawing need not be told with every frame.
    let last = Math.floor(workbench.get().time);
    wantFrom(last);
    ahead.desk.pause(workbench.get().playing);
    return useWorkbench.subscribe(({ playing, time }) => {
      ahead.desk.pause(playing);
      if (playing || Math.floor(time) === last) return;
      last = Math.floor(time);
      wantFrom(last);
    });
  }, [ahead, link, keys, rate, stripFrames]);
  return ahead;
}

/** The addresses of frames that are drawn; the calling part of the screen is drawn again when more are. */
export function useAheadImages(ahead: Ahead | null): (key: string | undefined) => string | null {
  const version = useSyncExternalStore(ahead?.subscribe ?? noSubscription, ahead?.version ?? noVersion);
  // Another version is another function: whoever remembers by it asks again.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => (key) => ahead?.images.url(key) ?? null, [ahead, version]);
}
const noSubscription = () => () => {};
const noVersion = () => 0;

/** How many of the frames from one to another are drawn already, 0…1. */
export function drawnPart(ahead: Ahead | null, keys: readonly string[], from: number, to: number): number {
  if (!ahead || to <= from) return 0;
  let there = 0;
  for (let frame = from; frame < to; frame += 1) if (keys[frame] && ahead.desk.store.has(keys[frame]!)) there += 1;
  return there / (to - from);
}
