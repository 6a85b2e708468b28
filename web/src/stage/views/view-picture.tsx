import { aspectOf, frameOf, type Pose, type Row } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import type { Footing } from '@eskovan/core/survey';
import { Armchair, Columns2, Grid3x3, PersonStanding } from 'lucide-react';
import { useProject } from '../../data/use-project.ts';
import { useFraming } from '../../desk/framing.ts';
import { useWorkbench, workbench, type Pressing } from '../../desk/workbench.ts';
import { useCommands } from '../../desk/commands.ts';
import { Button, useStable } from '../../kit/index.ts';
import type { Ground } from '../../picture/eye.ts';
import { PicturePane } from '../../picture/picture-pane.tsx';
import { ScoutBar } from '../../picture/scout-bar.tsx';
import { frameText } from '../shared/frames.ts';
import { lensText } from '../shared/lens-text.ts';
import { NudgePad } from './nudge-pad.tsx';
import { OtherViews } from './other-views.tsx';
import { longerLens, PRESS, roundSubject, usePresses } from './use-presses.ts';
import { scoutAs, useSeenLens } from './use-seen.ts';

interface ViewPictureProps {
  views: readonly Row<'view'>[];
  row: Row<'view'> | null;
  sample: CameraSample;
  /** Where the eye is, or where its flight ends. */
  still: Pose;
  /** Where the view is: what scouting is away from. */
  target: Pose | null;
  /** The eye as it is just now. */
  eye: () => Pose | null;
  /** What stands in the way of eyes; null until it is known. */
  solids: Footing['solids'] | null;
  ground: Ground | null;
  /** Of who walks about, metres. */
  eyeHeight: number;
  guides: boolean;
  onGuides: () => void;
  onKeep: () => void;
  onUpdate: () => void;
  onCompare: () => void;
}

const move = (next: Pose) => workbench.set({ scout: next });

/** The picture of a view, the hands in it, and what says how far off one is. */
export function ViewPicture(props: ViewPictureProps) {
  const { views, row, sample, still, target, eye, solids, ground, eyeHeight } = props;
  const { guides, onGuides, onKeep, onUpdate, onCompare } = props;
  const { project } = useProject();
  const scout = useWorkbench((state) => state.scout);
  const pressing = useWorkbench((state) => state.pressing);
  const { guide, safe, second, mask, cameras } = useFraming();
  const lens = useSeenLens(row);
  const frame = frameOf(row?.body ?? null, project.body);
  const seen = { row, pose: still, lens, frame, ground, eyeHeight };
  const onPress = usePresses(seen);
  const nudged = useStable(() => workbench.get().scout ?? still);
  const onRound = useStable((angle: number) => void roundSubject({ ...seen, pose: nudged() }, angle));
  const onLonger = useStable((factor: number) => longerLens({ ...seen, pose: nudged() }, factor));
  const askFor = (what: Pressing) => workbench.set({ pressing: pressing === what ? null : what });
  useCommands([
    { id: 'view.stand', label: 'Stand there', group: 'Picture', keys: 'f', run: () => askFor('stand') },
    { id: 'view.sit', label: 'Sit here', group: 'Picture', keys: 'h', run: () => askFor('sit') },
    {
      id: 'view.press.not',
      label: 'Press nothing after all',
      group: 'Picture',
      keys: 'Escape',
      hidden: true,
      when: () => workbench.get().pressing !== null,
      run: () => workbench.set({ pressing: null }),
    },
  ]);
  return (
    <div className="flex h-full flex-col bg-surround">
      <header className="on-surround flex h-9 shrink-0 items-center gap-3 px-3 text-surround-ink">
        <span className="truncate font-semibold">{row ? `${views.indexOf(row) + 1} · ${row.name}` : 'Scouting'}</span>
        <span className="ml-auto font-mono text-sm text-surround-soft">
          {lensText(lens)} · {frameText(frame)}
        </span>
        <Button
          tone="surround"
          small
          icon={<PersonStanding size={13} />}
          pressed={pressing === 'stand'}
          onClick={() => askFor('stand')}
        >
          Stand there
        </Button>
        <Button
          tone="surround"
          small
          icon={<Armchair size={13} />}
          pressed={pressing === 'sit'}
          onClick={() => askFor('sit')}
        >
          Sit here
        </Button>
        <Button tone="surround" small icon={<Columns2 size={13} />} onClick={onCompare}>
          Compare
        </Button>
        <Button tone="surround" small icon={<Grid3x3 size={13} />} pressed={guides} onClick={onGuides}>
          Guides
        </Button>
      </header>
      <div className="min-h-0 flex-1">
        <PicturePane
          label="Picture"
          sample={sample}
          frame={frame}
          mask={mask}
          {...(guides && {
            guides: { lines: guide, safe, second: second && aspectOf({ frame: second }) },
          })}
          {...(cameras && {
            over: (
              <OtherViews
                {...{ views, row, sample, solids }}
                atView={sample.position === row?.body.pose.position}
                aspect={aspectOf({ frame })}
                onPress={(id, how) => workbench.selectView(id, how, [])}
              />
            ),
          })}
          hands={{
            eye,
            onMove: move,
            lens,
            ground,
            eyeHeight,
            onLens: (next, pose) => scoutAs({ pose, lens: next }),
            ...(onPress && { onPress }),
          }}
        >
          {pressing && (
            <p className="pointer-events-none absolute inset-x-0 top-3 text-center" role="status">
              <span className="rounded bg-surround px-2 py-1 text-surround-ink">{PRESS[pressing]}</span>
            </p>
          )}
          {scout && target && (
            <ScoutBar
              from={target}
              scout={scout}
              name={row?.name ?? 'the first look'}
              onBack={() => workbench.set({ scout: null })}
              onKeep={onKeep}
              {...(row && { keepLabel: 'Keep as new' })}
              {...(row && !row.body.locked ? { onUpdate } : {})}
            />
          )}
        </PicturePane>
      </div>
      <NudgePad eye={nudged} onMove={move} onRound={onRound} onLens={onLonger} />
    </div>
  );
}
