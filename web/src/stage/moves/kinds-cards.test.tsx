import { afterEach, describe, expect, test } from '@jest/globals';
import { checkMove } from '@eskovan/core/check';
import {
  FIRST_LIMITS,
  type BodyOf,
  type Follow,
  type Glide,
  type Ride,
  type Travel,
  type Vec3,
} from '@eskovan/core/document';
import { anglesOf, orientationOf } from '@eskovan/core/geometry';
import { compileMove } from '@eskovan/core/move';
import { Footing } from '@eskovan/core/survey';
import { act, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { selection } from '../../desk/selection.ts';
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
import { editItem } from './edit-items.ts';
import { emptyGlide, emptyRide, firstFollow, firstTravel } from './edit-move.ts';
import { kindOf } from './kinds.tsx';

const nowhere = new Footing(new Float32Array(0), new Float32Array(0));
const site = {
  footing: nowhere,
  walker: { height: 1.9, step: 0.25 },
  parts: [],
  motion: null,
  aspect: 16 / 9,
  limits: FIRST_LIMITS,
};
const SEEN = { position: [1, 2, 3] as Vec3, orientation: orientationOf({ pan: 0.5, tilt: -0.2, roll: 0 }) };
const LENS = { focalLengthMm: 35, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] as [number, number] };

const shown = <B extends BodyOf<'move'>>() => shownDocument().move[0]!.body as B;
const row = () => shownDocument().move[0]!;
const moveOf = (body: BodyOf<'move'>) => compileMove(body, site);

function Cards() {
  const current = useProject().move[0]!;
  const move = moveOf(current.body);
  const { cards: Kind } = kindOf(current.body);
  return (
    <Kind
      row={current}
      body={current.body}
      move={move}
      current
      cover={null}
      findings={move ? checkMove(move, nowhere, FIRST_LIMITS) : []}
      aspect={16 / 9}
    />
  );
}
const start = (body: BodyOf<'move'>) =>
  renderInProject(<Cards />, exampleDocument({ move: [exampleRow(20, 'Move', body)] }));
const enter = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};
const press = (name: string | RegExp) => userEvent.click(screen.getByRole('button', { name }));
const choose = (name: string) => userEvent.click(screen.getByRole('radio', { name }));

afterEach(async () => {
  await leaveProject();
  workbench.set({ aiming: null, time: 0, scout: null, forAWhile: false });
  selection.clear();
});

describe('the cards of a travel', () => {
  const poses = () => shown<Travel>().poses;
  const times = () => poses().map(({ time }) => time);
  const three = (): Travel => ({
    ...(firstTravel(SEEN, LENS) as Travel),
    poses: [0, 2, 5].map((time, i) => ({
      id: uuid(50 + i),
      time,
      hold: 0,
      ...SEEN,
      position: [i, 2, 0],
      span: 'smooth',
    })),
  });
  const list = () => screen.getByRole('list', { name: 'Poses' });

  test('what is seen becomes the next pose, or the one before the first', async () => {
    start(firstTravel(SEEN, LENS));
    act(() => workbench.set({ scout: { ...SEEN, position: [4, 2, 3] } }));
    await press('Keep pose here');
    expect(times()).toEqual([0, 3]);
    expect(poses()[1]!.position).toEqual([4, 2, 3]);
    act(() => workbench.set({ scout: { ...SEEN, position: [-4, 2, 3] } }));
    await press('Keep before the first');
    expect(times()).toEqual([0, 3, 6]);
    expect(poses()[0]!.position).toEqual([-4, 2, 3]);
    await press('Return to the start');
    expect(poses().at(-1)!.position).toEqual([-4, 2, 3]);
  });

  test('a chosen pose is moved in time with what follows or alone, held, raised and replaced', async () => {
    start(three());
    await userEvent.click(within(list()).getAllByRole('button')[1]!);
    expect(workbench.get().time).toBe(2);
    await enter('At, s', '3');
    expect(times()).toEqual([0, 3, 6]);
    await choose('Stays');
    await enter('At, s', '4');
    expect(times()).toEqual([0, 4, 6]);
    await enter('Stays for, s', '1.5');
    expect(times()).toEqual([0, 4, 7.5]);
    await enter('Height, m', '5');
    expect(poses()[1]!.position[1]).toBe(5);
    act(() => workbench.set({ scout: { ...SEEN, position: [9, 9, 9] } }));
    await press('Replace by what is seen');
    expect(poses()[1]).toMatchObject({ position: [9, 9, 9], time: 4, hold: 1.5 });
    await press('Copy to the end');
    expect(poses()).toHaveLength(4);
    await press('Delete');
    expect(times()).toEqual([0, 7.5, 10.5]);
  });

  test('turning, ends and speed; and the whole as a glide', async () => {
    start(three());
    await choose('The shortest way');
    await choose('Ready for a cut');
    await choose('Even');
    expect(shown<Travel>()).toMatchObject({ turning: 'free', ends: 'running', even: true });
    await choose('By the poses');
    expect('even' in shown<Travel>()).toBe(false);
    await press('Make it a glide');
    expect(shown<Glide>().kind).toBe('glide');
    expect(screen.getByText('Above ground')).toBeTruthy();
    // As fast at every moment as before: longer or shorter it is still so, until something else is said of it.
    expect(screen.getByRole('combobox', { name: 'Shape of the pace' }).textContent).toBe('As it was');
    const { kept } = shown<Glide>().pace;
    await enter('Takes, s', '20');
    expect(shown<Glide>().pace).toMatchObject({ duration: 20, kept });
    await press('Pause here');
    expect(shown<Glide>().pace.pauses).toHaveLength(1);
    expect(shown<Glide>().pace.kept).toBeUndefined();
    expect(screen.getByRole('combobox', { name: 'Shape of the pace' }).textContent).not.toBe('As it was');
  });

  test('poses in the strip are pushed in time, lengthened, raised by keys from where they are by now, and deleted', () => {
    start(three());
    const item = () => moveOf(shown())!.channels[0]!.items![1]!;
    const held = item();
    editItem(row(), moveOf(shown())!, held, { by: 'shift', seconds: 0.5 });
    expect(times()).toEqual([0, 2.5, 5.5]);
    editItem(row(), moveOf(shown())!, item(), { by: 'to', seconds: 1 });
    expect(poses()[1]!.hold).toBe(1);
    // Two presses before the strip is drawn again count twice.
    for (let i = 0; i < 2; i += 1) editItem(row(), moveOf(shown())!, held, { by: 'nudge', seconds: 0, value: 0.05 });
    expect(poses()[1]!.position[1]).toBeCloseTo(2.1, 9);
    editItem(row(), moveOf(shown())!, held, { by: 'remove' });
    expect(poses()).toHaveLength(2);
  });
});

describe('the cards of a glide', () => {
  const glide = (): Glide => ({
    ...(emptyGlide({ min: [0, 0, 0], max: [20, 6, 20] }) as Glide),
    path: {
      closed: false,
      nodes: [0, 8, 16].map((x, i) => ({ id: uuid(60 + i), x, y: 3 + i, z: 0, kind: 'smooth', radius: 0.5 })),
    },
  });

  test('its height is drawn, level or above the ground, and nothing jumps at first', async () => {
    start(glide());
    await choose('Level');
    expect(shown<Glide>().height).toEqual({ by: 'level', height: 3 });
    await enter('At, m', '7.5');
    expect(moveOf(shown())!.sampleAt(4).position[1]).toBe(7.5);
    await choose('Above ground');
    await enter('Above the ground, m', '12');
    await enter('Clear of everything by, m', '3');
    expect(shown<Glide>().height).toEqual({ by: 'ground', above: 12, clearance: 3 });
  });

  test('a node is raised by typing and in the section; a walk would stay on its floor', async () => {
    start(glide());
    act(() => selection.chooseItem('node', uuid(20), uuid(61)));
    await enter('Height, m', '9');
    expect(shown<Glide>().path.nodes[1]!.y).toBe(9);
    const item = moveOf(shown())!.channels[0]!.items![1]!;
    expect(item).toMatchObject({ value: 9, about: 'Node 2' });
    editItem(row(), moveOf(shown())!, item, { by: 'value', value: 4 });
    expect(shown<Glide>().path.nodes[1]!.y).toBe(4);
    await press('Reverse');
    expect(shown<Glide>().path.nodes[0]!.x).toBe(16);
  });

  test('pace, gaze and keys are those of every move', async () => {
    start(glide());
    await enter('Takes, s', '6');
    expect(shown<Glide>().pace.duration).toBe(6);
    await press('Pause here');
    expect(shown<Glide>().pace.pauses).toHaveLength(1);
    await press('Truck');
    act(() => workbench.set({ time: 3 }));
    await press(/^Truck/);
    await choose('That of the way');
    expect(shown<Glide>()).toMatchObject({ together: true, tracks: { truck: [{ value: 0 }, { value: 0 }] } });
  });
});

describe('the cards of a ride and of one that follows', () => {
  test('a ride asks what carries it, follows softly, leans or not', async () => {
    start(emptyRide(SEEN));
    await press('Choose what');
    expect(workbench.get().aiming).toBe('carrier');
    act(() => workbench.set({ aiming: null }));
    await enter('Takes, s', '20');
    expect(shown<Ride>().duration).toBe(20);
    // Until it is carried it stays where the eye was.
    expect(moveOf(shown())!.sampleAt(9).position).toEqual([1, 2, 3]);
  });

  test('what carried it and is gone is said', async () => {
    const carrier = { model: uuid(90), name: 'Train / Car', centre: [0, 1, 0] as Vec3 };
    start({ ...(emptyRide(SEEN) as Ride), carrier });
    expect(screen.getByText('Car')).toBeTruthy();
    await enter('Follows softly by, s', '0.4');
    await choose('Leans with it');
    await enter('y, m', '1.25');
    expect(shown<Ride>()).toMatchObject({ softness: 0.4, horizon: 'with it', seat: [1, 1.25, 3] });
  });

  test('one that follows looks as the eye did until it has something; then it is held in the frame', async () => {
    start(firstFollow(SEEN, LENS));
    const { pan } = anglesOf(moveOf(shown())!.sampleAt(1).orientation);
    expect(pan).toBeCloseTo(0.5, 6);
    await enter('x, m', '-4');
    expect(shown<Follow>().position).toEqual([-4, 2, 3]);
    await leaveProject();
    const gaze = {
      kind: 'object' as const,
      model: uuid(90),
      name: 'Car',
      point: [0, 1, 0] as Vec3,
      centre: [0, 1, 0] as Vec3,
    };
    start({ ...(firstFollow(SEEN, LENS) as Follow), gaze });
    await enter('Held right by, %', '30');
    await enter('Room ahead, %', '20');
    await choose('Held by the lens');
    expect(shown<Follow>()).toMatchObject({ holdSize: true, gaze: { place: [0.3, 0], lead: 0.2 } });
    await enter('Held right by, %', '0');
    expect('place' in shown<Follow>().gaze).toBe(false);
    await choose('Kept direction');
    expect(shown<Follow>().gaze.kind).toBe('bearing');
  });
});
