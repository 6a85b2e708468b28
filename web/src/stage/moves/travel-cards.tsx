import { LONGEST_TRAVEL, type SpanKind, type Travel, type TravelPose } from '@eskovan/core/document';
import {
  copyPoses,
  holdPose,
  mirrorPoses,
  removePose,
  replacePose,
  returnToStart,
  setSpan,
  shiftPoses,
  travelEnd,
} from '@eskovan/core/move';
import { Copy, FlipHorizontal2, MapPinPlus, Plane, RefreshCw, Repeat2, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import { selection, useItems, howOf } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, Card, cx, Line, NumberField, Segmented, Select } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { ChecksCard } from './checks-card.tsx';
import { CoverCard } from './cover-card.tsx';
import { makeGlide } from './convert-move.ts';
import { editMove } from './edit-move.ts';
import { editPoses, keepPoseAt, keepPoseFirst } from './edit-poses.ts';
import { GazeCard } from './gaze-card.tsx';
import { MoveLensCard } from './move-lens-card.tsx';
import type { MoveCardsProps } from './move-props.ts';
import { OverTimeCard } from './over-time-card.tsx';
import { useMend } from './use-mend.ts';

const SPANS: readonly { value: SpanKind; label: string }[] = [
  { value: 'smooth', label: 'Smooth' },
  { value: 'straight', label: 'Straight' },
  { value: 'round', label: 'Round the subject' },
];

/** What the selected travel is made of, in numbers. */
export const TravelCards = memo(function TravelCards(props: MoveCardsProps<Travel>) {
  const { row, body, move, findings, current, cover, aspect } = props;
  const mend = useMend(move);
  const { ids } = useItems('pose', row.id);
  const chosen = body.poses.filter(({ id }) => ids.includes(id));
  return (
    <div className="grid gap-2.5 p-3">
      {move && body.poses.length > 1 && (
        <ChecksCard
          {...{ row, findings, current, ...(mend && { mend }) }}
          fine="Nothing is in the camera’s way, and it turns calmly."
        />
      )}
      <PosesCard {...props} chosen={chosen} />
      {chosen.length > 0 && <ChosenCard {...props} chosen={chosen} />}
      <TurningCard {...props} />
      <GazeCard row={row} body={body} move={move} />
      <MoveLensCard row={row} body={body} move={move} aspect={aspect} />
      <OverTimeCard row={row} body={body} move={move} />
      {move && cover && cover.length > 0 && <CoverCard move={move} cover={cover} />}
    </div>
  );
});

interface ChosenProps extends MoveCardsProps<Travel> {
  chosen: readonly TravelPose[];
}

function PosesCard({ row, body, move, chosen }: ChosenProps) {
  const scout = useWorkbench((state) => state.scout);
  const { poses } = body;
  const start = poses[0]?.time ?? 0;
  const seen = () => {
    const { scout: free, time } = workbench.get();
    return free ?? move?.sampleAt(time) ?? null;
  };
  const keep = () => {
    const pose = seen();
    if (!pose) return;
    keepPoseAt(row, move, pose, Math.min(workbench.get().time, move?.duration ?? 0));
    workbench.set({ scout: null });
  };
  const keepFirst = () => {
    const pose = seen();
    if (pose) keepPoseFirst(row, pose);
  };
  return (
    <Card title="Poses" note={`${poses.length} · ${(travelEnd(poses) - start).toFixed(1)} s`}>
      <div className="flex flex-wrap gap-1.5">
        <Button small icon={<MapPinPlus size={13} />} onClick={keep}>
          Keep pose here
        </Button>
        <Button small disabled={poses.length === 0} onClick={keepFirst}>
          Keep before the first
        </Button>
        <Button
          small
          icon={<Repeat2 size={13} />}
          disabled={poses.length < 2}
          onClick={() => editPoses(row, 'Return to the start', (now) => returnToStart(now, () => crypto.randomUUID()))}
        >
          Return to the start
        </Button>
      </div>
      {poses.length < 2 && (
        <p className="mt-1.5 text-sm text-ink-soft">
          {scout
            ? 'Keep what you see as the next pose.'
            : 'Look about in the picture, then keep what you see as the next pose.'}
        </p>
      )}
      <ol aria-label="Poses" className="mt-2 grid max-h-56 gap-0.5 overflow-y-auto">
        {poses.map((pose, i) => (
          <li key={pose.id}>
            <button
              type="button"
              aria-pressed={chosen.includes(pose)}
              className={cx(
                'flex h-7 w-full items-center gap-2 rounded-md px-2 text-left hover:bg-lagoon-wash',
                chosen.includes(pose) && 'bg-lagoon-wash font-medium',
              )}
              onClick={(event) => {
                selection.chooseItem(
                  'pose',
                  row.id,
                  pose.id,
                  howOf(event),
                  poses.map(({ id }) => id),
                );
                workbench.set({ time: pose.time - start, playing: false, scout: null });
              }}
            >
              <span className="w-5 font-mono text-indigo">{i + 1}</span>
              <span className="grow font-mono">{(pose.time - start).toFixed(2)} s</span>
              <span className="text-sm text-ink-soft">
                {pose.hold > 0 && `stays ${pose.hold.toFixed(1)} s`}
                {i + 1 < poses.length &&
                  pose.span !== 'smooth' &&
                  ` ${SPANS.find(({ value }) => value === pose.span)!.label.toLowerCase()}`}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </Card>
  );
}

/** What is done with the chosen poses. */
function ChosenCard({ row, body, move, chosen }: ChosenProps) {
  const [ripple, setRipple] = useState(true);
  const { poses } = body;
  const start = poses[0]?.time ?? 0;
  const ids = chosen.map(({ id }) => id);
  const lead = chosen[0]!;
  const alone = chosen.length === 1;
  const time = (label: string, value: number, onChange: (seconds: number) => void) => (
    <TimeField {...{ label, value, onChange }} step={0.25} min={0} max={LONGEST_TRAVEL} />
  );
  return (
    <Card title={alone ? `Pose ${poses.indexOf(lead) + 1}` : `${chosen.length} poses`}>
      {time('At', lead.time - start, (seconds) =>
        editPoses(row, 'Move poses in time', (now) => shiftPoses(now, ids, seconds + start - lead.time, ripple)),
      )}
      <Line label="What follows">
        <Segmented
          label="What follows"
          value={ripple ? 'along' : 'stays'}
          options={[
            { value: 'along', label: 'Comes along' },
            { value: 'stays', label: 'Stays' },
          ]}
          onChange={(value) => setRipple(value === 'along')}
        />
      </Line>
      {alone &&
        time('Stays for', lead.hold, (seconds) => editPoses(row, 'Stay', (now) => holdPose(now, lead.id, seconds)))}
      {alone && (
        <NumberField
          label="Height"
          unit="m"
          measure="length"
          value={lead.position[1]}
          step={0.1}
          onChange={(y) =>
            editPoses(row, 'Raise a pose', (now) =>
              replacePose(now, lead.id, { position: [lead.position[0], y, lead.position[2]] }),
            )
          }
        />
      )}
      <Line label="Goes on">
        <Select
          label="How it goes on"
          value={lead.span}
          options={SPANS}
          onChange={(span) => {
            editPoses(row, 'How it goes on', (now) => ids.reduce((list, id) => setSpan(list, id, span), now));
            if (span === 'round' && !body.subject) workbench.set({ aiming: 'subject', playing: false });
          }}
        />
      </Line>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {alone && (
          <Button
            small
            icon={<RefreshCw size={13} />}
            onClick={() => {
              const { scout, time: now } = workbench.get();
              const pose = scout ?? move?.sampleAt(now);
              if (!pose) return;
              const { position, orientation } = pose;
              editPoses(row, 'Replace a pose', (list) => replacePose(list, lead.id, { position, orientation }));
              workbench.set({ scout: null, time: lead.time - start });
            }}
          >
            Replace by what is seen
          </Button>
        )}
        <Button
          small
          icon={<Copy size={13} />}
          onClick={() =>
            editPoses(row, 'Copy poses', (now) => copyPoses(now, ids, travelEnd(now), () => crypto.randomUUID()))
          }
        >
          Copy to the end
        </Button>
        <Button
          small
          icon={<FlipHorizontal2 size={13} />}
          disabled={chosen.length < 2}
          onClick={() => editPoses(row, 'Mirror poses in time', (now) => mirrorPoses(now, ids))}
        >
          Mirror in time
        </Button>
        <Button
          small
          tone="danger"
          icon={<Trash2 size={13} />}
          onClick={() => {
            editPoses(row, 'Delete poses', (now) => ids.reduce(removePose, now));
            selection.chooseItem('pose', row.id, null);
          }}
        >
          Delete
        </Button>
      </div>
    </Card>
  );
}

function TurningCard({ row, body, move }: MoveCardsProps<Travel>) {
  const set = (label: string, change: Partial<Travel>) =>
    editMove(row, 'travel', label, (now) => ({ ...now, ...change }));
  return (
    <Card title="Between poses">
      <Line label="Turns">
        <Segmented
          label="How it turns"
          value={body.turning}
          options={[
            { value: 'level', label: 'Level' },
            { value: 'free', label: 'The shortest way' },
          ]}
          onChange={(turning) => set('How it turns', { turning })}
        />
      </Line>
      <Line label="Ends">
        <Segmented
          label="How it ends"
          value={body.ends}
          options={[
            { value: 'rest', label: 'At rest' },
            { value: 'running', label: 'Ready for a cut' },
          ]}
          onChange={(ends) => set('How it ends', { ends })}
        />
      </Line>
      <Line label="Speed">
        <Segmented
          label="Speed between stays"
          value={body.even ? 'even' : 'poses'}
          options={[
            { value: 'poses', label: 'By the poses' },
            { value: 'even', label: 'Even' },
          ]}
          onChange={(value) =>
            editMove(row, 'travel', 'Speed', ({ even: _, ...now }) => ({
              ...now,
              ...(value === 'even' && { even: true as const }),
            }))
          }
        />
      </Line>
      <div className="mt-1.5">
        <Button
          small
          icon={<Plane size={13} />}
          disabled={!move?.path || body.poses.length < 2}
          onClick={() => move && makeGlide(row, move)}
        >
          Make it a glide
        </Button>
      </div>
    </Card>
  );
}
