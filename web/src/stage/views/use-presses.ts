import { aspectOf, type Frame, type Lens, type Pose, type Row, type Vec3 } from '@eskovan/core/document';
import { heldOn } from '@eskovan/core/framing';
import { middle } from '@eskovan/core/geometry';
import { FOCAL_LENGTHS } from '@eskovan/core/move';
import { Projection, throughLens } from '@eskovan/core/optics';
import { toast } from 'sonner';
import { useWorkbench, workbench, type Pressing } from '../../desk/workbench.ts';
import { pickSeen } from '../../picture/client.ts';
import { goRound, rayThrough, type Ground } from '../../picture/eye.ts';
import type { PickedSurface } from '../../picture/source.ts';
import { pressedPart } from '../shared/find-part.tsx';
import { FIRST_F_NUMBER } from '../shared/focus-fields.tsx';
import { changeCamera, scoutAs, withPerspective } from './use-seen.ts';

interface Seen {
  row: Row<'view'> | null;
  pose: Pose;
  lens: Lens;
  frame: Frame;
  ground: Ground | null;
  eyeHeight: number;
}

/** What a press in the picture is asked for, in words over it. */
export const PRESS: Record<Pressing, string> = {
  focus: 'Press what is to be sharp',
  stand: 'Press where to stand',
  sit: 'Press what to sit on',
  subject: 'Press what the picture is about',
};

const NOWHERE: Record<Pressing, string> = {
  focus: 'There is nothing to focus on there: only sky.',
  stand: 'There is nothing to stand on there.',
  sit: 'There is nothing to sit on there. Press the top of a seat, a step or a low wall.',
  subject: 'There is nothing there: only sky.',
};

/** What a press in the picture does, while one is waited for; else undefined. */
export function usePresses({ row, pose, lens, frame, ground, eyeHeight }: Seen) {
  const pressing = useWorkbench((state) => state.pressing);
  if (!pressing) return undefined;
  const put = (scout: Pose | null | undefined) => {
    if (!scout) return void toast(NOWHERE[pressing]);
    workbench.set({ pressing: null });
    // Who stands somewhere sees with perspective.
    scoutAs({ pose: scout, lens: withPerspective(lens) });
  };
  // What is sharp is a plane across the camera's axis, not a distance along the ray.
  const focusOn = (point: Vec3) => {
    const focus = projectionOf({ pose, lens, frame }).project(point).depth;
    workbench.set({ pressing: null });
    changeCamera(row, 'Lens', { pose, lens: { ...lens, focus, fNumber: lens.fNumber ?? FIRST_F_NUMBER } });
  };
  const chooseSubject = async (hit: PickedSurface) => {
    const part = await pressedPart(hit);
    workbench.set({ pressing: null, ...(part && { subject: part }) });
  };
  return (hit: PickedSurface | null) => {
    if (!hit) toast(NOWHERE[pressing]);
    else if (pressing === 'focus') focusOn(hit.point);
    else if (pressing === 'subject') void chooseSubject(hit);
    else if (!ground) toast('The floors are not there yet: press again in a moment.');
    else if (pressing === 'stand') put(ground.standOn(hit.point, pose, eyeHeight));
    else put(ground.sitOn(hit.point, pose));
  };
}

const projectionOf = ({ pose, lens, frame }: Pick<Seen, 'pose' | 'lens' | 'frame'>) =>
  new Projection(throughLens(lens), aspectOf({ frame }), pose.position, pose.orientation);

const middleRay = ({ pose, lens, frame }: Pick<Seen, 'pose' | 'lens' | 'frame'>) =>
  rayThrough(pose, lens, aspectOf({ frame }), 0, 0);

/** Goes round what the picture is about, else round what is in its middle. @param angle radians */
export async function roundSubject(seen: Pick<Seen, 'pose' | 'lens' | 'frame'>, angle: number): Promise<void> {
  const { subject } = workbench.get();
  const centre = subject ? middle(subject.bounds) : (await pickSeen(middleRay(seen)))?.point;
  if (centre) workbench.set({ scout: goRound(seen.pose, centre, angle, 0) });
  else toast('There is nothing in the middle of the picture to go round. Choose a subject.');
}

/** A longer or shorter lens; with what the picture is about held, where that is wanted. */
export function longerLens(
  { row, pose, lens, frame }: Pick<Seen, 'row' | 'pose' | 'lens' | 'frame'>,
  factor: number,
): void {
  const { holding, subject } = workbench.get();
  if (lens.parallel !== undefined)
    return changeCamera(row, 'Height of the picture', { pose, lens: { ...lens, parallel: lens.parallel / factor } });
  const [shortest, longest] = FOCAL_LENGTHS;
  const focalLengthMm = Math.min(longest, Math.max(shortest, lens.focalLengthMm * factor));
  const kept = holding && subject ? heldOn(subject.bounds, { pose, lens }, focalLengthMm, aspectOf({ frame })) : null;
  changeCamera(row, 'Lens', kept ?? { pose, lens: { ...lens, focalLengthMm } });
}
