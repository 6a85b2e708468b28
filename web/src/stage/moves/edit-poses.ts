import type { Pose, Row, Travel, TravelPose, Vec3 } from '@eskovan/core/document';
import { appendPose, insertPose, NEXT_POSE, prependPose, travelEnd, type CompiledMove } from '@eskovan/core/move';
import { selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import { editMove } from './edit-move.ts';

/** Who is so near to the end of a travel is at its end, seconds. */
const AT_END = 1 / 24;

export const editPoses = (row: Row<'move'>, label: string, change: (poses: TravelPose[]) => TravelPose[]): void =>
  editMove(row, 'travel', label, (now) => ({ ...now, poses: change(now.poses) }));

const poseFrom = ({ position, orientation }: Pose): TravelPose => ({
  id: crypto.randomUUID(),
  time: 0,
  hold: 0,
  position,
  orientation,
  span: 'smooth',
});

/** Keeps what is seen as a pose at a time; at the end of the travel, as the next one after it. */
export function keepPoseAt(row: Row<'move'>, move: CompiledMove | null, pose: Pose, time: number): void {
  const made = poseFrom(pose);
  const body = row.body as Travel;
  const start = body.poses[0]?.time ?? 0;
  const ends = body.poses.length < 2 || !move || time > move.duration - AT_END;
  editPoses(row, 'Keep a pose', (poses) =>
    ends ? appendPose(poses, made) : insertPose(poses, { ...made, time: start + time }),
  );
  selection.chooseItem('pose', row.id, made.id);
  // The next one is looked for from here.
  if (ends) workbench.set({ time: travelEnd(body.poses) - start + (body.poses.length > 0 ? NEXT_POSE : 0) });
}

/** Keeps what is seen as a new first pose: the rest comes later. */
export function keepPoseFirst(row: Row<'move'>, pose: Pose): void {
  const made = poseFrom(pose);
  editPoses(row, 'Keep a pose before the first', (poses) => prependPose(poses, made));
  selection.chooseItem('pose', row.id, made.id);
  workbench.set({ time: 0, scout: null });
}

/** Lets the spans of a travel go round a place that was pressed. */
export function roundSubject(row: Row<'move'>, point: Vec3): void {
  workbench.set({ aiming: null });
  editMove(row, 'travel', 'Go round it', (now) => ({ ...now, subject: point }));
}
