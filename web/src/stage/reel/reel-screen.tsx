import type { Row } from '@eskovan/core/document';
import { frameAt, frameTime, shownAt, shotIndexAt } from '@eskovan/core/reel';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { ProjectProvider, useProject } from '../../data/use-project.ts';
import { usePlayback } from '../../desk/playing.ts';
import { selection, useLead } from '../../desk/selection.ts';
import { useTimeCommands } from '../../desk/time-commands.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Empty, Panels, useKept, useStable } from '../../kit/index.ts';
import { useModels, useSite } from '../../site/use-site.ts';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { BringIn } from './bring-in.tsx';
import { ReelChecksCard } from './checks-card.tsx';
import { JoinCard, joinFrames } from './join-card.tsx';
import { openReel, type OpenReel } from './open-reel.ts';
import { OutCard } from './out-card.tsx';
import { PictureTools } from './picture-tools.tsx';
import { RenderReelDialog } from './render-reel-dialog.tsx';
import { ReelCard } from './reel-card.tsx';
import { useReelDesk } from './reel-desk.ts';
import { useReelFacts } from './reel-facts.ts';
import { CompareWith, ReelPictures, useBesideReel } from './reel-pictures.tsx';
import { ReelStrips } from './reel-strips.tsx';
import { ReelsShelf, useSelectedReel } from './reels-shelf.tsx';
import { SeenCard } from './seen-card.tsx';
import { ShotCard } from './shot-card.tsx';
import { SoundCard } from './sound-card.tsx';
import { useAheadDesk, useWishes } from './use-ahead.ts';
import { useReelCommands } from './use-reel-commands.ts';
import { useReelScenes } from './use-reel-scenes.ts';
import { useReelSound } from './use-reel-sound.ts';
import { useReelWork } from './use-reel-work.ts';
import { useShotPeople } from './use-shot-people.ts';

const NO_SHOTS: OpenReel['shots'] = [];
/** Where one was in the reel, for coming back from another stage. */
let lastTime = 0;

/** Shots in order, joined, timed and watched. */
export function ReelScreen() {
  const document = useProject();
  const models = useModels();
  const site = useSite();
  const row = useSelectedReel();
  const measured = useReelFacts((state) => state.measured);
  const open = useMemo(
    () => (row ? openReel(document, row) : null),
    // Lengths of moves are in the plan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [document, row, measured],
  );
  // Cards and lists, and what workers are asked, may follow a moment later; strip and picture may not.
  const calm = useDeferredValue(open);
  const calmDocument = useDeferredValue(document);
  const rows = useKept(calm?.shots ?? NO_SHOTS);
  const scenes = useReelScenes(rows);
  const { link, film } = useReelWork(calm, rows, scenes);
  const [stripFrames, setStripFrames] = useState<readonly number[]>([]);
  const join = useReelDesk((state) => state.join);
  const joinIndex = open ? open.shots.findIndex(({ id }) => id === join) : -1;
  // What a chosen join shows comes first.
  const wanted = useKept([...joinFrames(open, joinIndex), ...stripFrames]);
  const keys = useReelFacts((state) => state.keys);
  const ahead = useAheadDesk();
  useWishes(ahead, { open: calm, link, scenes, keys, first: wanted, of: 'open' });
  const besideRow = useBesideReel(row);
  const beside = useMemo(
    () => (besideRow ? openReel(document, besideRow) : null),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [document, besideRow, measured],
  );
  const shot = useLead('shot');
  const chosen = open?.shots.find(({ id }) => id === shot) ?? null;
  const people = useShotPeople(chosen?.id ?? null);
  const duration = open ? frameTime(open.plan.frames, open.rate) : 0;
  usePlayback(duration, false, open?.rate);
  useTimeCommands(duration, open?.rate ?? document.project.body.rate);
  useReelCommands(open);
  const sound = useReelSound(open);
  useOwnTime();
  const navigate = useNavigate();
  const onOpen = useStable((of: Row<'shot'>) => {
    const { use } = of.body;
    if (use.kind === 'move') {
      workbench.selectMove(use.move);
      void navigate('../moves');
    }
    if (use.kind === 'view') {
      selection.chooseRow('view', use.view);
      void navigate('../views');
    }
  });
  const stage = useRef<HTMLDivElement>(null);
  const [rendering, setRendering] = useState(false);
  const onRender = useStable(() => setRendering(true));
  const onRound = useStable(() => open && roundShot(open));
  const onFullScreen = useStable(
    () =>
      void (globalThis.document.fullscreenElement
        ? globalThis.document.exitFullscreen()
        : stage.current?.requestFullscreen()),
  );
  const shots = (open?.shots.length ?? 0) > 0;

  if (models.length === 0) return <NeedsModel />;
  if (!site) return <SiteComing />;

  const left = (
    <ProjectProvider value={calmDocument}>
      <Panels
        id="reel-left"
        direction="vertical"
        panels={[
          { id: 'reels', size: '46%', min: 120, content: <ReelsShelf selected={row} /> },
          { id: 'bring-in', min: 140, content: <BringIn open={calm} /> },
        ]}
      />
    </ProjectProvider>
  );
  const picture = (
    <div ref={stage} className="flex h-full flex-col bg-surround">
      <header className="flex h-8.5 shrink-0 items-center justify-between gap-2 px-3 text-surround-ink">
        <ShownShot open={open} />
        {open && shots && <CompareWith row={open.row} />}
      </header>
      <div className="min-h-0 flex-1">
        {open && shots ? (
          <ReelPictures open={open} link={link} ahead={ahead} beside={beside} />
        ) : (
          <p className="on-surround flex h-full items-center justify-center p-6 text-center text-surround-soft">
            {open
              ? 'Press a move or a view at the left: it becomes the first shot.'
              : 'A reel is shots in order, joined to one film. Make one at the left.'}
          </p>
        )}
      </div>
      <PictureTools
        duration={duration}
        rate={open?.rate ?? document.project.body.rate}
        shots={shots}
        onRender={film ? onRender : null}
        onRound={onRound}
        onFullScreen={onFullScreen}
      />
    </div>
  );
  const calmShot = calm?.shots.find(({ id }) => id === shot) ?? null;
  const calmJoin = calm ? calm.shots.findIndex(({ id }) => id === join) : -1;
  const cards = calm && (
    <ProjectProvider value={calmDocument}>
      <div className="relative grid h-full grid-cols-[minmax(0,1fr)] content-start gap-2.5 overflow-y-auto bg-desk p-2.5 *:[contain-intrinsic-size:auto_12rem] *:[content-visibility:auto]">
        {calmJoin > 0 && <JoinCard open={calm} index={calmJoin} link={link} ahead={ahead} />}
        {calmJoin <= 0 && calmShot && <ShotCard key={calmShot.id} open={calm} row={calmShot} onOpen={onOpen} />}
        {calm.shots.length > 0 && <SeenCard open={calm} />}
        <ReelCard open={calm} />
        {calm.shots.length > 0 && <ReelChecksCard open={calm} />}
        <SoundCard open={calm} sound={sound} />
        {calm.shots.length > 0 && <OutCard open={calm} link={link} ahead={ahead} onRender={film ? onRender : null} />}
      </div>
    </ProjectProvider>
  );
  return (
    <>
      {rendering && open && film && <RenderReelDialog open={open} film={film} onClose={() => setRendering(false)} />}
      <Panels
        id="reel"
        direction="vertical"
        panels={[
          {
            id: 'upper',
            min: 260,
            content: (
              <Panels
                id="reel-upper"
                panels={[
                  { id: 'left', size: 214, min: 160, content: left },
                  { id: 'picture', min: 320, content: picture },
                  { id: 'cards', size: 322, min: 260, content: cards ?? <div className="h-full bg-desk" /> },
                ]}
              />
            ),
          },
          {
            id: 'strips',
            size: 290,
            min: 150,
            content:
              open && shots ? (
                <ReelStrips open={open} ahead={ahead} people={people} onStripFrames={setStripFrames} onOpen={onOpen} />
              ) : (
                <Empty title="No shots yet">
                  Shots stand here as a strip of film, as wide as they are long, with how the picture moves and which
                  rooms are seen under them.
                </Empty>
              ),
          },
        ]}
      />
    </>
  );
}

/** The reel has a time of its own: coming back from another stage one is where one was. */
function useOwnTime(): void {
  useEffect(() => {
    workbench.set({ time: lastTime, playing: false, round: null, scout: null });
    return () => {
      lastTime = workbench.get().time;
      workbench.set({ time: 0, playing: false, round: null });
    };
  }, []);
}

/** Plays the shot that is on round and round, or all of it again. */
function roundShot({ plan, rate }: OpenReel): void {
  const { round, time } = workbench.get();
  const shot = plan.shots[shotIndexAt(plan, frameAt(time, rate))]!;
  const from = frameTime(shot.start, rate);
  workbench.set({ round: round ? null : { from, to: frameTime(shot.start + shot.frames, rate) } });
}

/** Which shot is on, and how far into it one is: a layer of its own, for it changes with every frame. */
function ShownShot({ open }: { open: OpenReel | null }) {
  const time = useWorkbench((state) => state.time);
  const shown = open && shownAt(open.plan, frameAt(time, open.rate));
  if (!open || !shown) return <span className="font-semibold">{open?.row.name ?? 'No reel yet'}</span>;
  const { shot, next } = shown;
  const into = time - frameTime(shot.start, open.rate);
  return (
    <>
      <span className="truncate font-semibold">
        {shot.index + 1} · {open.shots[shot.index]!.name}
        {next && ` → ${open.shots[next.shot.index]!.name}`}
      </span>
      <span className="font-mono text-sm whitespace-nowrap text-surround-soft">
        shot {into.toFixed(2)} of {frameTime(shot.frames, open.rate).toFixed(2)} s
      </span>
    </>
  );
}
