import type { PictureSize } from '@eskovan/render';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { AheadDesk, type AheadWishes, type WishedFor, NO_WISHES } from '../../picture/ahead.ts';
import { AheadImages } from '../../picture/ahead-images.ts';
import type { OpenReel } from './open-reel.ts';
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

function makeAhead(): Ahead & { close: () => void } {
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
  const desk = new AheadDesk(changed);
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

/** A desk for the frames of the reels that are shown. */
export function useAheadDesk(): Ahead | null {
  const [ahead, setAhead] = useState<ReturnType<typeof makeAhead> | null>(null);
  useEffect(() => {
    const made = makeAhead();
    setAhead(made);
    return () => made.close();
  }, []);
  return ahead;
}

/** Frames of a reel that are to be drawn ahead. */
interface WishedFrames {
  open: OpenReel | null;
  link: ReelLink | null;
  scenes: ReelScenes;
  /** Names of all frames. */
  keys: readonly string[];
  /** Frames that come first: those that the strip shows. */
  first: readonly number[];
  of: WishedFor;
}

/** Lets a reel be drawn ahead: what comes first, then from where one is to its end, then the rest. */
export function useWishes(ahead: Ahead | null, { open, link, scenes, keys, first, of }: WishedFrames): void {
  useEffect(() => {
    ahead?.desk.setScenes(scenes.scenes, of);
  }, [ahead, scenes.scenes, of]);
  // Who is not looked at any more needs nothing held ready.
  useEffect(() => () => ahead?.desk.setScenes({}, of), [ahead, of]);
  const rate = open?.rate;
  const aspect = open?.aspect;
  useEffect(() => {
    if (!ahead || !link || !rate || !aspect || keys.length === 0) return;
    const size = aheadSize(aspect);
    const shown = first.filter((frame) => frame < keys.length);
    const wantFrom = (second: number) => {
      const from = Math.min(keys.length - 1, Math.floor((second * rate.num) / rate.den));
      const frameOf = (i: number) => shown[i] ?? (from + i - shown.length) % keys.length;
      const wishes: AheadWishes = {
        count: shown.length + keys.length,
        keyOf: (i) => keys[frameOf(i)]!,
        wishOf: (i) => {
          const frame = frameOf(i);
          return { key: keys[frame]!, size, picture: () => link.picture(frame) };
        },
      };
      ahead.desk.want(wishes, of);
    };
    // A second is near enough: the order of drawing need not be told with every frame.
    let last = Math.floor(workbench.get().time);
    wantFrom(last);
    ahead.desk.pause(workbench.get().playing);
    const stop = useWorkbench.subscribe(({ playing, time }) => {
      ahead.desk.pause(playing);
      if (playing || Math.floor(time) === last) return;
      last = Math.floor(time);
      wantFrom(last);
    });
    return () => {
      stop();
      ahead.desk.want(NO_WISHES, of);
    };
  }, [ahead, link, keys, rate, aspect, first, of]);
}

/** Another number whenever more is drawn: the calling part of the screen is drawn again then. */
export const useAheadVersion = (ahead: Ahead | null): number =>
  useSyncExternalStore(ahead?.subscribe ?? noSubscription, ahead?.version ?? noVersion);

/** The addresses of frames that are drawn; the calling part of the screen is drawn again when more are. */
export function useAheadImages(ahead: Ahead | null): (key: string | undefined) => string | null {
  const version = useAheadVersion(ahead);
  // Another version is another function: whoever remembers by it asks again.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  return useMemo(() => (key) => ahead?.images.url(key) ?? null, [ahead, version]);
}
const noSubscription = () => () => {};
const noVersion = () => 0;

/** Of a long stretch so many frames stand for all of it. */
const LOOKED = 2400;

/** How many of the frames from one to another are drawn already, 0…1. @param most so many of them are looked at */
export function drawnPart(
  ahead: Ahead | null,
  keys: readonly string[],
  from: number,
  to: number,
  most = LOOKED,
): number {
  if (!ahead || to <= from) return 0;
  const count = Math.min(most, to - from);
  let there = 0;
  for (let i = 0; i < count; i += 1) {
    const key = keys[from + Math.floor(((to - from) * i) / count)];
    if (key && ahead.desk.store.has(key)) there += 1;
  }
  return there / count;
}
