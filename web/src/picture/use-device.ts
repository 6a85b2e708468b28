import type { Pose } from '@eskovan/core/document';
import { useEffect } from 'react';
import type { DeviceWish, HeldDevice } from '../desk/held-device.ts';
import { lookAround } from './eye.ts';
import { gone } from './going.ts';
import type { Hands, Latest } from './hands.ts';

/** How fast a whole stick turns, radians a second. */
const TURN = 1.4;
/** What takes longer is a page that was away, seconds. */
const LONGEST = 0.2;

/** Lets a device walk the eye, as long as it wants something. */
export function useDevice(latest: Latest, device: HeldDevice | null): void {
  useEffect(() => {
    if (!device) return;
    const started = performance.now();
    let before = started;
    /** The eye without its shaking. */
    let calm: Pose | null = null;
    let loop = requestAnimationFrame(function step(now) {
      loop = requestAnimationFrame(step);
      const seconds = Math.min(LONGEST, Math.max(0, now - before) / 1000);
      before = now;
      const { hands } = latest.current;
      const wish = hands && device.read((now - started) / 1000);
      const eye = calm ?? hands?.eye();
      if (!wish) calm = null;
      if (!hands || !wish || !eye) return;
      calm = carried(hands, eye, wish, seconds);
      hands.onMove(wish.shake ? shaken(calm, wish.shake) : calm);
    });
    return () => cancelAnimationFrame(loop);
  }, [latest, device]);
}

function carried(hands: Hands, from: Pose, { forward, right, left, up }: DeviceWish, seconds: number): Pose {
  const tempo = hands.tempo ?? 1;
  const pose =
    left === 0 && up === 0 ? from : lookAround(from, left * TURN * seconds * tempo, up * TURN * seconds * tempo);
  return gone(hands, pose, [forward, right], seconds);
}

function shaken(pose: Pose, { x, y, z, pan, tilt }: NonNullable<DeviceWish['shake']>): Pose {
  const turned = lookAround(pose, pan, tilt);
  const [px, py, pz] = pose.position;
  return { ...turned, position: [px + x, py + y, pz + z] };
}
