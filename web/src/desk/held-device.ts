/** What a hand on a device wants: forward and to the right −1…1, to the left and up −1…1; how it shakes, metres and radians. */
export interface DeviceWish {
  forward: number;
  right: number;
  left: number;
  up: number;
  shake?: { x: number; y: number; z: number; pan: number; tilt: number };
}

/** Something held in the hand that walks the eye. Null while it wants nothing. */
export interface HeldDevice {
  name: string;
  read(seconds: number): DeviceWish | null;
}

/** A stick that is let go of is rarely at nothing. */
const DEAD = 0.12;
const live = (value: number | undefined) => (value !== undefined && Math.abs(value) > DEAD ? value : 0);

/** The first gamepad that is connected: left stick walks, right stick looks (the standard layout of the Gamepad API). */
export const gamepad: HeldDevice = {
  name: 'Gamepad',
  read: () => {
    const pad = navigator.getGamepads?.().find((one) => one?.connected);
    if (!pad) return null;
    const [right, back, turn, down] = pad.axes.map(live);
    const wish = { forward: -(back ?? 0), right: right ?? 0, left: -(turn ?? 0), up: -(down ?? 0) };
    return Object.values(wish).every((value) => value === 0) ? null : wish;
  },
};

/**
 * Stands in for a device that is carried about: walks ahead, stops now and then, looks about, and shakes as a hand does
 * (some millimetres and tenths of a degree, at three to nine beats a second; common practice, no source).
 */
export const simulatedHandheld: HeldDevice = {
  name: 'Simulated handheld',
  read: (seconds) => {
    const stands = seconds % 9 > 7;
    const beat = (speed: number, phase: number) =>
      Math.sin(2 * Math.PI * speed * seconds + phase) + 0.5 * Math.sin(2 * Math.PI * 2.3 * speed * seconds + 2 * phase);
    return {
      forward: stands ? 0 : 0.75,
      right: 0,
      left: 0.25 * Math.sin(seconds / 2.2),
      up: 0,
      shake: {
        x: 0.006 * beat(3.1, 0.4),
        y: 0.004 * beat(3.7, 1.9),
        z: 0.006 * beat(3.3, 3.1),
        pan: 0.006 * beat(3.5, 5.2),
        tilt: 0.004 * beat(4.1, 0.9),
      },
    };
  },
};
