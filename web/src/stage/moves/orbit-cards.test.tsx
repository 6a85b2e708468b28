import { afterEach, describe, expect, test } from '@jest/globals';
import { checkMove } from '@eskovan/core/check';
import { DEFAULT_LENS, FIRST_LIMITS, type Orbit } from '@eskovan/core/document';
import { compileMove } from '@eskovan/core/move';
import { Footing } from '@eskovan/core/survey';
import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { workbench } from '../../desk/workbench.ts';
import { useProject } from '../../data/use-project.ts';
import {
  exampleDocument,
  exampleRow,
  leaveProject,
  renderInProject,
  shownDocument,
  uuid,
} from '../../testing/studio.tsx';
import { firstOrbit } from './edit-move.ts';
import { OrbitCards } from './orbit-cards.tsx';

const nowhere = new Footing(new Float32Array(0), new Float32Array(0));
const scope = { model: uuid(90), name: 'Scope / Tube', bounds: { min: [0, 1, 0], max: [0.4, 1.3, 0.3] } } as const;
const parts = [{ ...scope, bounds: { min: [...scope.bounds.min], max: [...scope.bounds.max] } }] as Parameters<
  typeof compileMove
>[1]['parts'];
const site = {
  footing: nowhere,
  walker: { height: 1.9, step: 0.25 },
  parts,
  motion: null,
  aspect: 16 / 9,
  limits: FIRST_LIMITS,
};
const ROUND_TUBE: Partial<Orbit> = {
  pivot: { kind: 'object', model: scope.model, name: scope.name, whole: false, point: [0.2, 1.15, 0.15] },
  distance: { by: 'fit', fill: 0.7 },
};

const orbitOf = () => shownDocument().move[0]!.body as Orbit;

function Cards() {
  const row = useProject().move[0]!;
  const body = row.body as Orbit;
  const { limits } = useProject().project.body;
  const move = compileMove(body, { ...site, limits })!;
  // What has become of another kind has other cards.
  if (row.body.kind !== 'orbit') return null;
  return (
    <OrbitCards
      row={row}
      body={body}
      move={move}
      current
      cover={null}
      findings={checkMove(move, nowhere, limits)}
      aspect={16 / 9}
    />
  );
}
const start = (change: Partial<Orbit> = {}) => {
  const body = { ...firstOrbit({ min: [-4, 0, -4], max: [4, 6, 4] }), ...change } as Orbit;
  renderInProject(<Cards />, exampleDocument({ move: [exampleRow(20, 'Turntable', body)] }));
};
const enter = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

afterEach(async () => {
  await leaveProject();
  workbench.set({ aiming: null, time: 0 });
});

describe('the cards of an orbit', () => {
  test('sweep, way, time, beginning, inclination in degrees and seconds', async () => {
    start();
    await enter('Sweep, °', '90');
    await userEvent.click(screen.getByRole('radio', { name: 'Clockwise' }));
    expect(orbitOf().sweep).toBeCloseTo(-Math.PI / 2, 9);
    await enter('Takes, s', '75f');
    expect(orbitOf().duration).toBe(3);
    await enter('Begins at, °', '45');
    await enter('Looks down by, °', '-10');
    expect(orbitOf().start).toBeCloseTo(Math.PI / 4, 9);
    expect(orbitOf().inclination).toBeCloseTo(-Math.PI / 18, 9);
  });

  test('a whole turn says that it closes, and how many frames that are', async () => {
    start();
    await enter('Takes, s', '5');
    expect(screen.getByText(/after 125 frames it is where it began/)).toBeTruthy();
    await enter('Sweep, °', '270');
    expect(screen.queryByText(/it is where it began/)).toBeNull();
  });

  test('round an object: by size in the frame or by metres, and nothing jumps between them', async () => {
    start(ROUND_TUBE);
    expect(screen.getByText('Tube')).toBeTruthy();
    await enter('Fills, %', '50');
    expect(orbitOf().distance).toEqual({ by: 'fit', fill: 0.5 });
    const before = compileMove(orbitOf(), site)!.sampleAt(1).position;
    await userEvent.click(screen.getByRole('radio', { name: 'By metres' }));
    const after = compileMove(orbitOf(), site)!.sampleAt(1).position;
    after.forEach((value, k) => expect(value).toBeCloseTo(before[k]!, 2));
  });

  test('what is gone is said; another thing is asked for', async () => {
    start({ pivot: { kind: 'object', model: uuid(91), name: 'Lid', whole: false, point: [0, 0, 0] } });
    await userEvent.click(screen.getByRole('button', { name: 'Choose what' }));
    expect(workbench.get().aiming).toBe('subject');
    expect(screen.getByText(/Press in the picture or in the plan/)).toBeTruthy();
  });

  test('too fast: one press gives it the time it needs', async () => {
    start({ duration: 5 });
    expect(screen.getByText(/turns by up to 72° a second/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'More time' }));
    expect(orbitOf().duration).toBeCloseTo(12, 2);
    expect(screen.getByText('fine')).toBeTruthy();
  });

  test('limits are the project’s: what it allows is fine', async () => {
    start({ duration: 5 });
    await userEvent.click(screen.getByRole('button', { name: 'Limits of the checks' }));
    await enter('A turn is noted from, °/s', '80');
    expect(shownDocument().project.body.limits).toMatchObject({ turnNote: 80, turnProblem: 60 });
    await userEvent.keyboard('{Escape}');
    expect(screen.getByText('fine')).toBeTruthy();
  });

  test('what is sharp: all of it, or what lies about a distance, with its range', async () => {
    start({ lens: { ...DEFAULT_LENS, focalLengthMm: 50 } });
    await userEvent.click(screen.getByRole('radio', { name: 'At a distance' }));
    await enter('Focus at, m', '5');
    // Source: the thin-lens formulas; 50 mm f/2.8 at 5 m is sharp from 4.29 m to 6.00 m.
    expect(orbitOf().lens).toMatchObject({ focus: 5, fNumber: 2.8 });
    expect(screen.getByText(/4\.29 to 6\.00/)).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'All' }));
    expect(orbitOf().lens.focus).toBeUndefined();
  });

  test('a lens that changes: with keys a number is meant for the instant that is shown', async () => {
    start({ lens: { ...DEFAULT_LENS, focalLengthMm: 50 }, duration: 12 });
    await userEvent.click(screen.getByRole('button', { name: 'Change it over time' }));
    expect(orbitOf().tracks!.focalLength).toMatchObject([{ anchor: { by: 'time', time: 0 }, value: 50 }]);
    act(() => workbench.set({ time: 6 }));
    await enter('Focal length, mm', '100');
    expect(orbitOf().tracks!.focalLength!.map(({ value }) => value)).toEqual([50, 100]);
    expect(orbitOf().lens.focalLengthMm).toBe(50);
    await userEvent.click(screen.getByRole('button', { name: 'No keys' }));
    expect(orbitOf().tracks!.focalLength).toEqual([]);
  });

  test('rise, end, shape, swing, stops and what turns', async () => {
    start(ROUND_TUBE);
    await enter('Rises by, m', '0.5');
    await enter('Ends at, %', '60');
    await enter('On average, °/s', '30');
    expect(orbitOf()).toMatchObject({ rise: 0.5, widens: 0.6, duration: expect.closeTo(12, 6) as unknown });
    await userEvent.click(screen.getByRole('radio', { name: 'Swings back' }));
    // It would turn on the spot otherwise.
    expect(orbitOf()).toMatchObject({ swings: true, shape: 'ease both' });
    await userEvent.click(screen.getByRole('radio', { name: 'The subject' }));
    expect(orbitOf().turns).toBe('subject');
    await userEvent.click(screen.getByRole('radio', { name: 'Stands' }));
    expect(orbitOf().lightStands).toBe(true);
    act(() => workbench.set({ time: 3 }));
    await userEvent.click(screen.getByRole('button', { name: 'Stop here' }));
    expect(orbitOf().stops).toHaveLength(1);
    await userEvent.click(screen.getByRole('button', { name: /^Take the stop at/ }));
    expect(orbitOf().stops).toEqual([]);
  });

  test('views all round are kept as one step; of a whole turn none comes twice', async () => {
    start(ROUND_TUBE);
    await enter('Views all round', '6');
    await userEvent.click(screen.getByRole('button', { name: 'Keep them' }));
    const { view } = shownDocument();
    expect(view).toHaveLength(6);
    const places = view.map(({ body }) => body.pose.position);
    const gaps = places.map((place, i) => Math.hypot(...place.map((value, k) => value - places[(i + 1) % 6]![k]!)));
    for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 3);
  });

  test('begins where one stands, and becomes a travel with the same pictures', async () => {
    start({ duration: 5 });
    act(() => workbench.set({ scout: { position: [0, 3, 9], orientation: [0, 0, 0, 1] } }));
    await userEvent.click(screen.getByRole('button', { name: 'Begin where I stand' }));
    compileMove(orbitOf(), site)!
      .sampleAt(0)
      .position.forEach((value, k) => expect(value).toBeCloseTo([0, 3, 9][k]!, 6));
    const before = compileMove(orbitOf(), site)!.sampleAt(2);
    await userEvent.click(screen.getByRole('button', { name: 'Make it a travel' }));
    const travel = shownDocument().move[0]!.body;
    expect(travel.kind).toBe('travel');
    const after = compileMove(travel, site)!.sampleAt(2);
    after.position.forEach((value, k) => expect(Math.abs(value - before.position[k]!)).toBeLessThan(0.03));
  });
});
