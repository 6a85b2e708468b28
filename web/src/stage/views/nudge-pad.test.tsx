import { afterEach, describe, expect, test } from '@jest/globals';
import { anglesOf } from '@eskovan/core/geometry';
import type { Pose } from '@eskovan/core/document';
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { useCommandKeys } from '../../desk/commands.ts';
import { NudgePad } from './nudge-pad.tsx';

let pose: Pose;
let rounds: number[] = [];
let lens = 24;
function Pad() {
  const [now, setNow] = useState<Pose>({ position: [0, 1.6, 0], orientation: [0, 0, 0, 1] });
  pose = now;
  useCommandKeys();
  return (
    <NudgePad
      eye={() => pose}
      onMove={setNow}
      onRound={(angle) => rounds.push(angle)}
      onLens={(factor) => (lens *= factor)}
    />
  );
}
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));
const degrees = (radians: number) => (radians * 180) / Math.PI;
afterEach(cleanup);

describe('nudging', () => {
  test('pan, tilt and roll turn by the chosen step, and back again', async () => {
    render(<Pad />);
    await press('5°');
    await press('Pan left');
    await press('Tilt up');
    await press('Roll left');
    const { pan, tilt, roll } = anglesOf(pose.orientation);
    [pan, tilt, roll].forEach((angle) => expect(degrees(angle)).toBeCloseTo(5, 6));
    await press('Pan right');
    await press('Tilt down');
    await press('Roll right');
    Object.values(anglesOf(pose.orientation)).forEach((angle) => expect(angle).toBeCloseTo(0, 6));
  });

  test.each([
    ['Truck right', [0.1, 1.6, 0]],
    ['Truck left', [-0.1, 1.6, 0]],
    ['Pedestal up', [0, 1.7, 0]],
    ['Pedestal down', [0, 1.5, 0]],
    ['Dolly in', [0, 1.6, -0.1]],
    ['Dolly out', [0, 1.6, 0.1]],
  ])('%s', async (name, place) => {
    render(<Pad />);
    await press(name);
    place.forEach((value, k) => expect(pose.position[k]).toBeCloseTo(value, 9));
  });

  test('the step of distances can be a centimetre or a metre', async () => {
    render(<Pad />);
    await press('1m');
    await press('Dolly in');
    await press('0.01m');
    await press('Dolly in');
    expect(pose.position[2]).toBeCloseTo(-1.01, 9);
  });

  test('round what the picture is about, and a longer lens', async () => {
    rounds = [];
    render(<Pad />);
    await press('5°');
    await press('Round right');
    await press('Round left');
    expect(rounds.map(degrees)).toEqual([expect.closeTo(5, 9), expect.closeTo(-5, 9)]);
    lens = 24;
    await press('Lens longer');
    expect(lens).toBeGreaterThan(24);
    await press('Lens shorter');
    expect(lens).toBeCloseTo(24, 9);
  });

  test('each nudge has a key; a key held down gains speed, and begins slowly again', async () => {
    render(<Pad />);
    const key = (name: string, how: KeyboardEventInit = { altKey: true }) =>
      act(() => void window.dispatchEvent(new KeyboardEvent('keydown', { key: name, ...how })));
    key('ArrowRight', { ctrlKey: true });
    expect(degrees(anglesOf(pose.orientation).pan)).toBeCloseTo(-1, 6);
    key('ArrowUp', { ctrlKey: true });
    expect(degrees(anglesOf(pose.orientation).tilt)).toBeCloseTo(1, 6);
    key('PageUp');
    expect(pose.position[1]).toBeCloseTo(1.7, 6);
    for (let i = 0; i < 20; i += 1) key('PageUp');
    // Twenty repeats in one go: more than twenty steps.
    const risen = pose.position[1];
    expect(risen).toBeGreaterThan(1.7 + 2.4);
    await new Promise((resolve) => setTimeout(resolve, 200));
    key('PageUp');
    expect(pose.position[1] - risen).toBeCloseTo(0.1, 6);
  });
});
