import { aspectOf } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { useProject } from '../../data/use-project.ts';
import { turns } from '../../picture/in-turn.ts';
import { drawStill, usePictureState, whileNobodyMoves } from '../../picture/client.ts';
import { useParts, useSiteMotion } from '../../site/use-parts.ts';
import { useSiteData } from '../../site/use-site.ts';
import { useExtent } from '../shared/use-extent.ts';
import { useCompiledMove } from '../shared/use-compiled-move.ts';
import { exampleMove } from './example-move.ts';
import { MovingMark, type KindName } from './kind-about.tsx';

/** Frames of a moving picture, and how long each is shown, milliseconds. */
const FRAMES = 12;
const SHOWN = 190;
/** Twice as many points as it has on the screen. */
const SIZE = { width: 168, height: 108 };

/** What a kind of move is, moving, in the project's own model; until that is drawn, or where it has nothing for it, as a drawing. */
export function KindPicture({ kind }: { kind: KindName }) {
  const frames = useExampleFrames(kind, useExample(kind));
  return (
    <span className="block h-13.5 w-21 shrink-0 overflow-hidden rounded-md">
      {frames ? <Film frames={frames} /> : <MovingMark kind={kind} />}
    </span>
  );
}

function useExample(kind: KindName): CompiledMove | null {
  const { project } = useProject();
  const extent = useExtent();
  const storeys = useSiteData().data?.survey.storeys;
  const asksParts = kind === 'ride' || kind === 'follow';
  const parts = useParts(asksParts);
  const motion = useSiteMotion(asksParts);
  const { eyeHeight } = project.body;
  const body = useMemo(
    () => (extent && storeys ? exampleMove(kind, { extent, storeys, parts, motion, eyeHeight }) : null),
    [kind, extent, storeys, parts, motion, eyeHeight],
  );
  return useCompiledMove(body);
}

/** Drawn one after the other by the picture's own worker, which has the scene; kept as long as that is the same. */
function useExampleFrames(kind: KindName, move: CompiledMove | null): readonly ImageBitmap[] | null {
  const { project } = useProject();
  const loaded = usePictureState((state) => state.loaded);
  const { data } = useQuery<readonly ImageBitmap[]>({
    queryKey: ['kind-picture', kind, project.id, loaded],
    enabled: move !== null && loaded !== null,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    // In another light it is drawn again; until then it is seen in this one.
    placeholderData: (before) => before,
    // Given up as soon as nobody looks: the worker belongs to what is looked at.
    queryFn: ({ signal }) => inTurn(() => drawExample(move!, aspectOf(project.body), signal)),
  });
  return data ?? null;
}

/** One kind after the other: the first is there soon, instead of all of them late. */
const inTurn = turns();

async function drawExample(move: CompiledMove, aspect: number, signal: AbortSignal): Promise<ImageBitmap[]> {
  const frames: ImageBitmap[] = [];
  // The whole of the frame's height, and as much of its width as there is room for.
  const size = { ...SIZE, frame: { width: SIZE.height * aspect, height: SIZE.height } };
  for (let i = 0; i < FRAMES; i += 1) {
    const time = (move.duration * i) / (move.loops ? FRAMES : FRAMES - 1);
    await whileNobodyMoves();
    signal.throwIfAborted();
    frames.push(await createImageBitmap(await drawStill(move.sampleAt(time), size, 1)));
  }
  return frames;
}

/** Shows frames one after the other, round and round; where people want less movement, one of them. */
function Film({ frames }: { frames: readonly ImageBitmap[] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    const show = (i: number) => context.drawImage(frames[i]!, 0, 0, SIZE.width, SIZE.height);
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    let at = Math.floor(frames.length / 3);
    show(at);
    if (still) return;
    const timer = setInterval(() => show((at = (at + 1) % frames.length)), SHOWN);
    return () => clearInterval(timer);
  }, [frames]);
  return <canvas ref={canvas} width={SIZE.width} height={SIZE.height} className="h-full w-full" aria-hidden />;
}
