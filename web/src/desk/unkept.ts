import { idSchema, poseSchema, type Pose } from '@eskovan/core/document';
import { z } from 'zod';
import { rememberedList } from './remembered.ts';

const unkeptSchema = z.object({ id: z.string(), move: idSchema, time: z.number().finite().min(0), pose: poseSchema });
/** A pose that was looked at beside a move, at a time of it, and neither kept nor forgotten yet. */
export type UnkeptPose = z.infer<typeof unkeptSchema>;

/** So many are held for a project; the oldest goes. */
const MOST = 60;
/** One instant, seconds. */
const SAME_TIME = 1e-3;

const remembered = rememberedList('unkept', unkeptSchema, MOST);
export const useUnkept = remembered.use;
export const openUnkept = remembered.open;

/** Holds a pose at a time of a move; one that is held there already gives way to it. */
export function holdPose(projectId: string, move: string, time: number, pose: Pose): void {
  remembered.change(projectId, (list) => [
    { id: crypto.randomUUID(), move, time, pose },
    ...list.filter((one) => one.move !== move || Math.abs(one.time - time) > SAME_TIME),
  ]);
}

/** Lets go of what is held at a time of a move. */
export function letGo(projectId: string, move: string, time: number): void {
  remembered.change(projectId, (list) =>
    list.filter((one) => one.move !== move || Math.abs(one.time - time) > SAME_TIME),
  );
}
