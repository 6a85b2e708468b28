import type { LengthUnit, MoveBody, Row } from '@eskovan/core/document';
import { liftAbout, liftAt, liftLine, type CompiledMove } from '@eskovan/core/move';
import { anglesOf } from '@eskovan/core/geometry';
import { useEffect, useMemo } from 'react';
import { useRecording } from '../../desk/recording.ts';
import { holdPose, letGo, openUnkept, useUnkept, type UnkeptPose } from '../../desk/unkept.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { useLengthUnit } from '../../kit/index.ts';
import { poseDistance } from '../../picture/eye.ts';
import { addGazeSpan } from './edit-items.ts';
import { editTrack } from './edit-move.ts';
import { keepPoseAt } from './edit-poses.ts';

/** Who looks about rests so long before the pose is held, milliseconds. */
const RESTED = 250;
/** A pose nearer to the move's own than this is its own: metres, degrees. */
const OWN = { metres: 0.02, degrees: 0.5 };
/** An eye higher or lower than the move's by this may become a lift, metres. */
const WORTH_LIFTING = 0.03;

const nowIn = (move: CompiledMove) => Math.min(workbench.get().time, move.duration);

/** What is looked at beside a move is held where it was looked at, until it is kept or forgotten. */
export function useUnkeptPoses(projectId: string, row: Row<'move'> | null, move: CompiledMove | null) {
  useEffect(() => openUnkept(projectId), [projectId]);
  const id = row?.id ?? null;
  const { steps } = useLengthUnit();
  useEffect(() => {
    if (id === null || !move) return;
    let pending: { time: number; pose: UnkeptPose['pose'] } | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hold = () => {
      clearTimeout(timer);
      if (pending) holdPose(projectId, id, pending.time, pending.pose);
      pending = null;
    };
    const leave = useWorkbench.subscribe((now, before) => {
      if (now.time !== before.time || (now.scout === null && before.scout !== null)) hold();
      // A live walk is recorded, not held.
      if (!now.scout || now.scout === before.scout || useRecording.getState().slowed !== null) return;
      const { metres, degrees } = poseDistance(move.sampleAt(nowIn(move)), now.scout);
      if (metres < OWN.metres * steps && degrees < OWN.degrees) return;
      pending = { time: nowIn(move), pose: now.scout };
      clearTimeout(timer);
      timer = setTimeout(hold, RESTED);
    });
    return () => {
      hold();
      leave();
    };
  }, [projectId, id, move, steps]);
  const list = useUnkept((state) => state.list);
  // The same as long as nothing comes or goes.
  return useMemo(() => list.filter((one) => one.move === id), [list, id]);
}

/** Looks again at a pose that is held. */
export const lookAgain = ({ time, pose }: UnkeptPose): void => workbench.set({ time, playing: false, scout: pose });

/** What may become of what the free eye sees, besides a view. */
export function unkeptActions(row: Row<'move'>, body: MoveBody, move: CompiledMove, { steps }: LengthUnit) {
  const kept = (keep: (pose: UnkeptPose['pose'], time: number) => void) => () => {
    const { scout } = workbench.get();
    if (!scout) return;
    const time = nowIn(move);
    keep(scout, time);
    workbench.set({ scout: null });
    letGo(row.projectId, row.id, time);
  };
  const { scout } = workbench.get();
  const rise = scout ? scout.position[1] - move.sampleAt(nowIn(move)).position[1] : 0;
  return [
    ...(body.kind === 'travel'
      ? [{ label: 'Keep pose here', run: kept((pose, time) => keepPoseAt(row, move, pose, time)) }]
      : []),
    ...('gaze' in body
      ? [
          {
            label: 'Keep as gaze',
            run: kept((pose, time) => {
              const { pan, tilt } = anglesOf(pose.orientation);
              addGazeSpan(row, move, time, { kind: 'bearing', pan, tilt });
            }),
          },
        ]
      : []),
    ...(liftLine(move) && Math.abs(rise) > WORTH_LIFTING * steps
      ? [{ label: 'Keep as lift', run: kept((pose, time) => keepAsLift(row, move, pose, time)) }]
      : []),
    { label: 'Forget', run: kept(() => {}) },
  ];
}

/** The eye of a walk is lifted about a time to where the free eye is. */
function keepAsLift(row: Row<'move'>, move: CompiledMove, { position }: UnkeptPose['pose'], time: number): void {
  const line = liftLine(move);
  if (!line) return;
  const ids = [crypto.randomUUID(), crypto.randomUUID(), crypto.randomUUID()] as const;
  const value = liftAt(line, time) + position[1] - line.at(time);
  editTrack(row, 'Keep as lift', 'lift', (keys) => [...liftAbout(move, keys, ids, time, value)]);
}
