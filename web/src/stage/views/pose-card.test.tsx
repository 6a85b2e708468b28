import { afterEach, describe, expect, test } from '@jest/globals';
import type { Pose } from '@eskovan/core/document';
import { anglesOf, orientationOf, toDegrees } from '@eskovan/core/geometry';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { PoseCard } from './pose-card.tsx';
import { poseText, readPose } from './pose-text.ts';

const START: Pose = { position: [1, 2.1, -3], orientation: orientationOf({ pan: 0.5, tilt: 0.1, roll: 0 }) };
let pose: Pose;
let eyes: number | null = null;
function Card({ north = 0, floor = 0.5 }: { north?: number; floor?: number | null }) {
  const [now, setNow] = useState(START);
  pose = now;
  return (
    <PoseCard
      pose={now}
      now={() => now}
      north={north}
      floor={floor}
      onPose={setNow}
      onEyes={(height) => (eyes = height)}
    />
  );
}
const field = (label: string) => screen.getByRole('textbox', { name: new RegExp(`^${label}`) });
async function type(label: string, text: string): Promise<void> {
  await userEvent.clear(field(label));
  await userEvent.type(field(label), `${text}{Enter}`);
}
afterEach(cleanup);

describe('a pose in numbers', () => {
  test('place, height over the floor and angles are typed, each by itself', async () => {
    render(<Card />);
    await type('Place x', '150cm');
    await type('Above the floor', '1.6');
    expect(pose.position).toEqual([1.5, expect.closeTo(2.1, 9), -3]);
    await type('Height', '3');
    expect(field('Above the floor')).toHaveProperty('value', '2.50');
    await type('Tilt', '-5');
    await type('Roll', '2');
    const { pan, tilt, roll } = anglesOf(pose.orientation);
    expect([pan, toDegrees(tilt), toDegrees(roll)].map((n) => Math.round(n * 1e6) / 1e6)).toEqual([0.5, -5, 2]);
  });

  test('a bearing is counted clockwise from north, wherever that is', async () => {
    render(<Card north={Math.PI / 2} />);
    // North is +X here: who looks there has bearing 0, who looks along −Z, a quarter turn to its left, 270°.
    await type('Bearing', '0');
    expect(toDegrees(anglesOf(pose.orientation).pan)).toBeCloseTo(-90, 6);
    await type('Bearing', '270');
    expect(toDegrees(anglesOf(pose.orientation).pan)).toBeCloseTo(0, 6);
    expect(field('Bearing')).toHaveProperty('value', '270.0');
  });

  test('the eyes of a child are set over the floor, and stood with from then on', async () => {
    render(<Card />);
    await userEvent.click(screen.getByRole('combobox', { name: 'Eyes of' }));
    await userEvent.click(await screen.findByRole('option', { name: 'Child' }));
    expect(eyes).toBe(1.1);
    expect(pose.position).toEqual([1, expect.closeTo(1.6, 9), -3]);
    expect(screen.getByRole('combobox', { name: 'Eyes of' }).textContent).toBe('Child');
  });

  test('where there is no floor there is no height over it', () => {
    render(<Card floor={null} />);
    expect(screen.queryByRole('textbox', { name: /^Above the floor/ })).toBeNull();
  });
});

describe('a pose as text', () => {
  test('comes back as it was', () => {
    const back = readPose(poseText(START))!;
    START.position.forEach((value, k) => expect(back.position[k]).toBeCloseTo(value, 6));
    START.orientation.forEach((value, k) => expect(back.orientation[k]).toBeCloseTo(value, 5));
    expect(Math.hypot(...back.orientation)).toBeCloseTo(1, 12);
  });

  test.each(['', 'hello', '{}', '{"pose":{"position":[1,2],"orientation":[0,0,0,1]}}', '[1,2,3]', 'null'])(
    'other text is no pose: %j',
    (text) => expect(readPose(text)).toBeNull(),
  );

  test('an orientation that is none is not taken', () => {
    expect(readPose('{"pose":{"position":[0,0,0],"orientation":[0,0,0,0]}}')).toBeNull();
  });
});
