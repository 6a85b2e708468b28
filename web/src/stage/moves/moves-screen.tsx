import { aspectOf } from '@eskovan/core/document';
import { useDeferredValue, useMemo } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { goToFrame, togglePlaying, usePlayback } from '../../desk/playing.ts';
import { selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import { useProject } from '../../data/use-project.ts';
import { useModels, useSiteData } from '../../site/use-site.ts';
import { Empty, Panels } from '../../kit/index.ts';
import { Ground } from '../../picture/eye.ts';
import { Transport } from '../../picture/transport.tsx';
import { frameAt } from '@eskovan/core/reel';
import { Strips } from '../../strips/strips.tsx';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { useScoutCommands } from '../shared/use-scout-commands.ts';
import { keepView } from '../shared/keep-view.ts';
import { MovePicture } from './move-picture.tsx';
import { addWalk, MovesShelf } from './moves-shelf.tsx';
import { moveSample } from './move-sample.ts';
import { useCompiledWalk, useSelectedMove } from '../shared/use-compiled-walk.ts';
import { WalkCards } from './walk-cards.tsx';
import { WalkPlan } from './walk-plan.tsx';

/** Lay a path, see it at eye height, play it. */
export function MovesScreen() {
  const document = useProject();
  const { project } = document;
  const models = useModels();
  const { data: site, error } = useSiteData();
  const row = useSelectedMove();
  const body = row?.body ?? null;
  const walk = useCompiledWalk(body);
  // Charts and cards may follow a dragging hand a frame later; path, plan and picture may not.
  const calmWalk = useDeferredValue(walk);
  const calmBody = useDeferredValue(body);
  const aspect = aspectOf(project.body);
  const rate = project.body.rate;
  const duration = walk?.duration ?? 0;
  usePlayback(duration);
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);

  const keepShown = () => {
    const sample = moveSample(walk, body, workbench.get());
    if (sample) keepView(document, sample);
  };
  const draw = () => {
    if (!row) return addWalk(document);
    selection.chooseItem('node', row.id, null);
    workbench.set({ tool: 'draw' });
  };

  const frame = () => frameAt(workbench.get().time, rate);
  const playable = () => duration > 0;
  useScoutCommands({ canKeep: body !== null, onKeep: keepShown });
  useCommands([
    { id: 'move.new', label: 'New walk', group: 'Moves', run: () => addWalk(document) },
    {
      id: 'time.play',
      label: 'Play or pause',
      group: 'Time',
      keys: 'Space',
      when: playable,
      run: () => togglePlaying(duration),
    },
    {
      id: 'time.back',
      label: 'Back one frame',
      group: 'Time',
      keys: ',',
      when: playable,
      run: () => goToFrame(frame() - 1, duration, rate),
    },
    {
      id: 'time.on',
      label: 'Forward one frame',
      group: 'Time',
      keys: '.',
      when: playable,
      run: () => goToFrame(frame() + 1, duration, rate),
    },
    { id: 'time.start', label: 'To the start', group: 'Time', when: playable, run: () => goToFrame(0, duration, rate) },
    {
      id: 'gaze.leave',
      label: 'Leave the gaze as it is',
      group: 'Picture',
      keys: 'Escape',
      hidden: true,
      when: () => workbench.get().aiming,
      run: () => workbench.set({ aiming: false }),
    },
  ]);

  if (models.length === 0) return <NeedsModel />;
  if (error) return <Empty title="The model’s plan could not be loaded">{error.message}</Empty>;
  if (!site) return <SiteComing />;

  const shelf = <MovesShelf selectedId={row?.id ?? null} />;
  const plan = <WalkPlan row={row} body={body} walk={walk} site={site} aspect={aspect} onDraw={draw} />;
  const picture = (
    <div className="flex h-full flex-col bg-surround">
      <header className="flex h-8.5 shrink-0 items-center justify-between gap-2 px-2.5 text-surround-ink">
        <span className="truncate font-semibold">{row?.name ?? 'No move yet'}</span>
        {body && (
          <span className="font-mono text-sm whitespace-nowrap text-surround-soft">
            {body.lens.focalLengthMm.toFixed(0)} mm · eye {body.eyeHeight.toFixed(2)} m
          </span>
        )}
      </header>
      <div className="min-h-0 flex-1">
        <MovePicture row={row} body={body} walk={walk} ground={ground} onKeep={keepShown} />
      </div>
      <Transport duration={duration} rate={rate} />
    </div>
  );
  const side = (
    <Panels
      id="moves-side"
      direction="vertical"
      panels={[
        { id: 'picture', size: '62%', min: 180, content: picture },
        {
          id: 'cards',
          min: 60,
          content: (
            <div className="h-full overflow-y-auto bg-desk">
              {row && calmBody && (
                <WalkCards row={row} body={calmBody} walk={calmWalk} aspect={aspect} frames={rate.num / rate.den} />
              )}
            </div>
          ),
        },
      ]}
    />
  );
  const upper = (
    <Panels
      id="moves-upper"
      panels={[
        { id: 'shelf', size: 210, min: 150, content: shelf },
        { id: 'plan', min: 300, content: plan },
        { id: 'side', size: 436, min: 300, content: side },
      ]}
    />
  );
  // The strips keep their place while there is nothing in them: the plan must not jump under the drawing hand.
  const strips = calmWalk ? (
    <Strips walk={calmWalk} rate={rate} onTime={(next) => workbench.set({ time: next, playing: false, scout: null })} />
  ) : (
    <p className="flex h-full items-center justify-center bg-desk text-ink-faint">
      The section and the pace of a walk show here.
    </p>
  );
  return (
    <Panels
      id="moves"
      direction="vertical"
      panels={[
        { id: 'upper', min: 300, content: upper },
        { id: 'strips', size: 200, min: 110, content: strips },
      ]}
    />
  );
}
