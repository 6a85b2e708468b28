import type { Walk } from '@eskovan/core/document';
import { walkFromRecording } from '@eskovan/core/move';
import { toast } from 'sonner';
import { gamepad, simulatedHandheld } from '../../desk/held-device.ts';
import { startRecording, stopRecording, useRecording } from '../../desk/recording.ts';
import { workbench } from '../../desk/workbench.ts';
import type { SiteData } from '../../site/use-site.ts';
import { emptyWalk } from './edit-move.ts';

/** A walk that was recorded faster than people walk is played at this speed, m/s. */
const FASTEST = 1.3;
const SLOWEST = 0.3;

/** Begins a live walk where the eye is, or where the move is just now. */
export function recordFrom(eye: Parameters<typeof startRecording>[0] | null, eyeHeight: number, slowed: number): void {
  if (!eye) return;
  startRecording(eye, eyeHeight, slowed);
  // A gamepad that is connected walks along; the simulated one only where it was asked for.
  if (!useRecording.getState().device && navigator.getGamepads?.().some((pad) => pad?.connected))
    useRecording.setState({ device: gamepad });
}

/** Lets the simulated handheld walk, or takes it away again. */
export const simulate = (): void =>
  useRecording.setState(({ device }) => ({ device: device === simulatedHandheld ? null : simulatedHandheld }));

/** Ends a live walk and makes an ordinary one of it. */
export function keepRecording(
  { footing }: SiteData,
  eyeHeight: number,
  onWalk: (body: Walk, name: string) => void,
): void {
  const recorded = dropRecording();
  if (!recorded) return;
  const made = walkFromRecording(
    recorded.instants,
    recorded.slowed,
    () => crypto.randomUUID(),
    (x, z, y) => footing.surfaceNear(x, z, y ?? 0),
  );
  if (!made) {
    toast('Nobody has walked: nothing was recorded. Walk with W A S D or the arrows, and look about by dragging.');
    return;
  }
  const plain = emptyWalk(eyeHeight) as Walk;
  const speed = Math.min(FASTEST, Math.max(SLOWEST, Number(made.speed.toFixed(2))));
  onWalk(
    {
      ...plain,
      path: made.path,
      gaze: made.gaze,
      pace: { ...plain.pace, speed, ...(made.pauses.length > 0 && { pauses: made.pauses }) },
    },
    'Live walk',
  );
}

/** Ends a live walk; what was recorded is nothing yet. */
export function dropRecording(): ReturnType<typeof stopRecording> {
  const recorded = stopRecording();
  useRecording.setState({ device: null });
  workbench.set({ scout: null });
  return recorded;
}
