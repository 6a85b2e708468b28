import type { Finding } from '@eskovan/core/check';
import { aspectOf, DEFAULT_LENS, type MoveBody } from '@eskovan/core/document';
import { firstLook } from '@eskovan/core/site';
import type { CompiledMove } from '@eskovan/core/move';
import { useDeferredValue, useMemo, useState } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { usePlayback } from '../../desk/playing.ts';
import { useTimeCommands } from '../../desk/time-commands.ts';
import { selection } from '../../desk/selection.ts';
import { letGo } from '../../desk/unkept.ts';
import { workbench } from '../../desk/workbench.ts';
import { liveRows } from '../../data/changes.ts';
import { inGesture } from '../../data/undo.ts';
import { ProjectProvider, useProject } from '../../data/use-project.ts';
import { useModels, useSiteData } from '../../site/use-site.ts';
import { Empty, Panels, useStable, useThrottled } from '../../kit/index.ts';
import { Ground } from '../../picture/eye.ts';
import { Transport } from '../../picture/transport.tsx';
import { LitBy } from '../shared/lit-by.tsx';
import { NeedsModel } from '../shared/needs-model.tsx';
import { SiteComing } from '../shared/site-coming.tsx';
import { useScoutCommands } from '../shared/use-scout-commands.ts';
import { keepView } from '../shared/keep-view.ts';
import { useExtent } from '../shared/use-extent.ts';
import { MoveSide, MoveStrips } from './calm-panes.tsx';
import { MovePicture } from './move-picture.tsx';
import { addFoundWalk, addKind, addWalk, MovesShelf, nextName } from './moves-shelf.tsx';
import { moveSample, useMoveSample } from './move-sample.ts';
import { useActionStrip, useWithActions } from './action-strip.ts';
import { useTriedBody } from './trying.ts';
import { useFindings } from './use-findings.ts';
import { useUnkeptPoses } from './unkept-actions.ts';
import { keepRecording, recordFrom } from './live-walk.ts';
import { DrawnDialog } from './drawn-dialog.tsx';
import { WayDialog } from './way-dialog.tsx';
import { CALM_EVERY, useCalmCut } from './use-calm-cut.ts';
import { kindOf } from './kinds.tsx';
import { moveCommands } from './move-menu.tsx';
import { useCompiledMove, useSelectedMove } from '../shared/use-compiled-move.ts';

/** Kinds of move that are not drawn on the floor, as they are asked for by a command. */
const OTHER_KINDS: readonly [MoveBody['kind'], string][] = [
  ['orbit', 'New orbit'],
  ['travel', 'New travel'],
  ['glide', 'New glide'],
  ['ride', 'New ride'],
  ['follow', 'Stand and follow'],
];

const NO_MARKS: readonly Finding[] = [];

/** Lay a path, see it at eye height, play it. */
export function MovesScreen() {
  const document = useProject();
  const { project } = document;
  const models = useModels();
  const { data: site, error } = useSiteData();
  const row = useSelectedMove();
  const kept = row?.body ?? null;
  const tried = useTriedBody(row?.id ?? null);
  const body = tried ?? kept;
  const move = useCompiledMove(body);
  // Path, plan and picture follow a dragging hand; charts and cards a moment later, and while it drags only a few times a
  // second, so that they take it no time.
  const now = useMemo(() => ({ move, row, document }), [move, row, document]);
  const seldom = useThrottled(now, CALM_EVERY);
  const deferred = useDeferredValue(inGesture() ? seldom : now);
  // Cards of another kind are other cards: what is typed into those that are about to go would be lost.
  const sameCards = deferred.row?.body.kind === row?.body.kind;
  const { move: calmMove, row: calmRow, document: calmDocument } = sameCards ? deferred : now;
  const actionStrip = useActionStrip((state) => state.shown);
  const stripMove = useCalmCut(useWithActions(calmMove), calmRow?.id ?? null);
  const aspect = aspectOf(project.body);
  const rate = project.body.rate;
  const duration = move?.duration ?? 0;
  usePlayback(duration, move?.loops ?? false, undefined, rate);
  const calmKept = calmRow?.body ?? null;
  const keptMove = useCompiledMove(calmKept);
  const { findings, current, cover } = useFindings(calmKept, keptMove, kept);
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);

  const held = useUnkeptPoses(project.id, row, move);
  const keepShown = () => {
    const sample = moveSample(move, body, workbench.get());
    if (sample) keepView(document, sample, body?.light);
    if (sample && row) letGo(project.id, row.id, sample.moveTime);
  };
  const draw = () => {
    if (!body || !('path' in body) || !row) return addWalk(document);
    selection.chooseItem('node', row.id, null);
    workbench.set({ tool: 'draw' });
  };

  const extent = useExtent();
  const newMove = (wanted: MoveBody['kind']) => {
    if (!extent) return;
    const now = moveSample(move, body, workbench.get());
    const pose = now ?? firstLook(extent, aspect);
    const { position, orientation } = pose;
    addKind(document, wanted, { pose: { position, orientation }, lens: body?.lens ?? DEFAULT_LENS }, extent);
  };
  const onNew = useStable(newMove);
  const eyes = (body && kindOf(body).eyeHeight(body)) ?? project.body.eyeHeight;
  const onRecord = useStable((slowed: number) => recordFrom(moveSample(move, body, workbench.get()), eyes, slowed));
  const onRecorded = () =>
    site && keepRecording(site, eyes, (made, name) => addFoundWalk(document, made, nextName(name, document.move)));
  const [asking, setAsking] = useState<'way' | 'drawing' | null>(null);
  const onWay = useStable(() => setAsking('way'));
  const onDrawn = useStable(() => setAsking('drawing'));
  useScoutCommands({ canKeep: body !== null, onKeep: keepShown });
  useTimeCommands(duration, rate, true);
  useCommands([
    { id: 'move.new', label: 'New walk', group: 'Moves', run: () => addWalk(document) },
    { id: 'move.way', label: 'Find the way', group: 'Moves', run: onWay },
    ...[1, 0.5].map((slowed) => ({
      id: slowed === 1 ? 'move.live' : 'move.live.half',
      label: slowed === 1 ? 'Record a live walk' : 'Record a live walk at half speed',
      group: 'Moves',
      when: () => body !== null && site !== null,
      run: () => onRecord(slowed),
    })),
    {
      id: 'strips.actions',
      label: actionStrip ? 'Hide the actions under the strips' : 'Show the actions under the strips',
      group: 'Time',
      when: () => liveRows(document.action).length > 0,
      run: () => useActionStrip.setState({ shown: !actionStrip }),
    },
    {
      id: 'move.company',
      label: 'Let somebody walk along, or nobody',
      group: 'Moves',
      when: () => Boolean(move?.ground),
      run: () => workbench.set({ company: !workbench.get().company }),
    },
    ...(row ? moveCommands(row) : []),
    { id: 'move.drawn', label: 'A path from a drawing', group: 'Moves', run: onDrawn },
    ...OTHER_KINDS.map(([wanted, label]) => ({
      id: `move.${wanted}`,
      label,
      group: 'Moves',
      run: () => newMove(wanted),
    })),
    {
      id: 'gaze.leave',
      label: 'Leave it as it is',
      group: 'Picture',
      keys: 'Escape',
      hidden: true,
      when: () => workbench.get().aiming !== null,
      run: () => workbench.set({ aiming: null }),
    },
  ]);

  if (models.length === 0) return <NeedsModel />;
  if (error) return <Empty title="The model’s plan could not be loaded">{error.message}</Empty>;
  if (!site) return <SiteComing />;

  const kind = kindOf(body);
  const { plan: MovePlan } = kind;
  const shelf = (
    <ProjectProvider value={calmDocument}>
      <MovesShelf selectedId={row?.id ?? null} {...{ onNew, onWay, onDrawn, onRecord }} />
    </ProjectProvider>
  );
  const plan = <MovePlan row={row} body={body} move={move} site={site} aspect={aspect} onDraw={draw} />;
  const eyeHeight = body && kind.eyeHeight(body);
  const picture = (
    <div className="flex h-full flex-col bg-surround">
      <header className="flex h-8.5 shrink-0 items-center justify-between gap-2 px-2.5 text-surround-ink">
        <span className="truncate font-semibold">
          {row?.name ?? 'No move yet'}
          {tried && ', as it would be'}
        </span>
        {body && (
          <span className="font-mono text-sm whitespace-nowrap text-surround-soft">
            <FocalLength move={move} body={body} />
            {eyeHeight !== null && ` · eye ${eyeHeight.toFixed(2)} m`}
          </span>
        )}
      </header>
      <div className="min-h-0 flex-1">
        <MovePicture
          {...{ row, body, move, ground }}
          footing={site.footing}
          onKeep={keepShown}
          onRecorded={onRecorded}
        />
      </div>
      <Transport duration={duration} rate={rate} steps walked={Boolean(move?.ground)} />
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
            <ProjectProvider value={calmDocument}>
              <MoveSide
                row={calmRow}
                body={calmKept}
                move={keptMove}
                settled={calmKept === kept}
                {...{ findings, current, cover, aspect }}
              />
            </ProjectProvider>
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
  const strips =
    calmMove && stripMove ? (
      <ProjectProvider value={calmDocument}>
        <MoveStrips
          row={calmRow}
          move={calmMove}
          shown={stripMove}
          current={calmMove === move && current}
          rate={rate}
          marks={tried ? NO_MARKS : findings}
          held={held}
        />
      </ProjectProvider>
    ) : (
      <p className="flex h-full items-center justify-center bg-desk text-ink-faint">
        The section and the pace of a walk show here.
      </p>
    );
  const making = {
    site,
    onClose: () => setAsking(null),
    onWalk: (made: MoveBody, name: string) => {
      addFoundWalk(document, made, name);
      setAsking(null);
    },
  };
  return (
    <LitBy light={body?.light} body={body}>
      {asking === 'way' && <WayDialog {...making} />}
      {asking === 'drawing' && <DrawnDialog {...making} storey={workbench.get().storey} />}
      <Panels
        id="moves"
        direction="vertical"
        panels={[
          { id: 'upper', min: 300, content: upper },
          { id: 'strips', size: 230, min: 110, content: strips },
        ]}
      />
    </LitBy>
  );
}

/** What the lens is just now: a layer of its own, for it may change with every frame. */
function FocalLength({ move, body }: { move: CompiledMove | null; body: MoveBody }) {
  const view = useMoveSample(move, body)?.view;
  return `${(view?.kind === 'lens' ? view : body.lens).focalLengthMm.toFixed(0)} mm`;
}
