import type { ActionBody, BodyOf, Row } from '@eskovan/core/document';
import { AS_IT_CAME } from '@eskovan/core/document';
import { afterEach, describe, expect, test } from '@jest/globals';
import { act, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { workbench } from '../../desk/workbench.ts';
import { undo } from '../../data/undo.ts';
import { liveRows } from '../../data/changes.ts';
import {
  exampleDocument,
  exampleModel,
  exampleRow,
  leaveProject,
  PROJECT,
  renderInProject,
  shownDocument,
  uuid,
} from '../../testing/studio.tsx';
import type { PartInfo } from '../../worker/parts.ts';
import { ActionsCard } from './actions-card.tsx';
import { addSpin, axisName, axisOf, AXES, faultOf, playLength } from './edit-actions.ts';

const MOVEMENTS = [
  { name: 'Ride', duration: 40, targets: ['Car'] },
  { name: 'Open the doors', duration: 3, targets: ['Door'] },
];
const model = (change: Partial<BodyOf<'model'>> = {}) =>
  exampleRow<'model'>(50, 'Shuttle', exampleModel({ fileName: 'shuttle.glb', movements: MOVEMENTS, ...change }));
const ride: ActionBody = { kind: 'recorded', model: uuid(50), start: 2, movement: 'Ride', speed: 2, repeat: 'once' };
const wheel: ActionBody = { kind: 'spin', model: uuid(50), start: 0, part: 'Car / Wheel', axis: [0, 1, 0], rate: 1 };
const action = (id: number, name: string, body: ActionBody): Row<'action'> => exampleRow<'action'>(id, name, body);
const start = (actions: Row<'action'>[] = [], models = [model()]) =>
  renderInProject(<ActionsCard />, exampleDocument({ model: models, action: actions }));
const bodies = () => liveRows(shownDocument().action).map(({ body }) => body);
const enter = async (label: RegExp, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};

afterEach(async () => {
  workbench.set({ playing: false, time: 0, scout: null });
  await leaveProject();
});

describe('the card of actions', () => {
  test('offers the movements of the shown files, and uses one as an action', async () => {
    start();
    expect(screen.queryByRole('button', { name: 'Play' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Use Ride' }));
    expect(bodies()).toEqual([{ ...ride, start: 0, speed: 1 }]);
    expect(screen.queryByRole('button', { name: 'Use Ride' })).toBeNull();
    expect(screen.getByRole('button', { name: 'Use Open the doors' })).toBeTruthy();
    act(() => void undo(PROJECT));
    expect(bodies()).toEqual([]);
    expect(await screen.findByRole('button', { name: 'Use Ride' })).toBeTruthy();
  });

  test('shows nothing where nothing can move', () => {
    start([], [model({ movements: [] }), { ...model({ hidden: true }), id: uuid(51) }]);
    expect(screen.queryByText('Actions')).toBeNull();
  });

  test('changes when it begins, how fast it runs and what it does at its end', async () => {
    start([action(60, 'Leaving', ride)]);
    await userEvent.click(screen.getByRole('button', { name: 'Change Leaving' }));
    await enter(/Begins at/, '1.5 s');
    await enter(/^Speed/, '1/2');
    await userEvent.click(screen.getByRole('radio', { name: 'Back' }));
    expect(bodies()).toEqual([{ ...ride, start: 1.5, speed: 0.5, repeat: 'to and fro' }]);
  });

  test('changes how a part spins, in turns a minute, about which axis', async () => {
    start([action(60, 'Wheel', wheel)]);
    await userEvent.click(screen.getByRole('button', { name: 'Change Wheel' }));
    await enter(/Turns a minute/, '-30');
    await userEvent.click(screen.getByRole('radio', { name: 'Across' }));
    expect(bodies()[0]).toMatchObject({ rate: expect.closeTo(-Math.PI, 9), axis: [1, 0, 0] });
  });

  test('renames and deletes; undo brings it back', async () => {
    start([action(60, 'Leaving', ride)]);
    const name = screen.getByRole('textbox', { name: /Action name/ });
    await userEvent.clear(name);
    await userEvent.type(name, 'Off to the hill{Enter}');
    expect(shownDocument().action[0]!.name).toBe('Off to the hill');
    await userEvent.click(screen.getByRole('button', { name: 'Change Off to the hill' }));
    await userEvent.click(screen.getByRole('button', { name: 'Delete' }));
    expect(bodies()).toEqual([]);
    act(() => void undo(PROJECT));
    expect(bodies()).toEqual([ride]);
  });

  test('plays and pauses, by button and by the space bar, and stays where one looks from', async () => {
    start([action(60, 'Leaving', ride)]);
    const scout = {
      position: [1, 2, 3] as [number, number, number],
      orientation: [0, 0, 0, 1] as [number, number, number, number],
    };
    act(() => workbench.set({ scout }));
    await userEvent.click(screen.getByRole('button', { name: 'Play' }));
    expect(workbench.get()).toMatchObject({ playing: true, scout });
    await userEvent.click(screen.getByRole('button', { name: 'Pause' }));
    expect(workbench.get().playing).toBe(false);
    await userEvent.click(screen.getByText('Actions'));
    await userEvent.keyboard(' ');
    expect(workbench.get().playing).toBe(true);
  });

  test('says why an action does nothing', () => {
    start([action(60, 'Fly', { ...ride, movement: 'Fly' })]);
    const fault = within(screen.getByRole('region', { name: 'Actions' })).getByRole('status');
    expect(fault.textContent).toMatch(/“shuttle.glb” has no movement “Fly” any more/);
  });
});

describe('what an action says about itself', () => {
  const part = { model: uuid(50), name: 'Car / Wheel / Hub' } as PartInfo;

  const FIRST_DIM: Extract<BodyOf<'action'>, { kind: 'dim' }> = {
    kind: 'dim',
    model: uuid(50),
    part: 'Car',
    start: 2,
    seconds: 3,
    from: 1,
    to: 0.2,
    shape: 'ease both',
    repeat: 'once',
  };

  test('a fault where model, movement or part are gone', () => {
    expect(faultOf(ride, [model()], [], [])).toBeNull();
    expect(faultOf(ride, [], [], [])).toMatch(/not in the project/);
    expect(faultOf(ride, [model({ hidden: true })], [], [])).toMatch(/hidden/);
    expect(faultOf(wheel, [model()], [part], [])).toBeNull();
    expect(faultOf(wheel, [model()], [{ ...part, name: 'Car / Wheels' }], [])).toMatch(/no part “Car \/ Wheel”/);
    // Before the parts are listed nothing is said of them.
    expect(faultOf(wheel, [model()], [], [])).toBeNull();
  });

  test('a lamp that does not glow, or that another action dims', () => {
    const dim = { ...FIRST_DIM, part: 'Car / Wheel' };
    const lamp = { ...part, materials: [{ glows: true }] } as PartInfo;
    expect(faultOf(dim, [model()], [lamp], [dim])).toBeNull();
    expect(faultOf(dim, [model()], [{ ...part, materials: [{ glows: false }] } as PartInfo], [dim])).toMatch(
      /Nothing in “Car \/ Wheel” gives off light/,
    );
    const outer = { ...dim, part: 'Car' };
    expect(faultOf(dim, [model()], [lamp], [outer, dim])).toMatch(/Another action dims these lamps/);
    expect(faultOf(dim, [model()], [lamp], [{ ...outer, off: true }, dim])).toBeNull();
  });

  test('how long a look takes: until the last has ended, and ten seconds at least', () => {
    expect(playLength([], [model()])).toBe(10);
    expect(playLength([action(60, 'a', ride)], [model()])).toBe(22);
    expect(playLength([action(60, 'a', { ...ride, repeat: 'to and fro' })], [model()])).toBe(42);
    expect(playLength([action(60, 'a', wheel)], [model()])).toBe(10);
  });

  test.each(['y', 'z'] as const)('axes have names, with %s up', (up) => {
    for (const name of AXES) expect(axisName(axisOf(name, up), up)).toBe(name);
    expect(axisOf('Upright', up)[up === 'y' ? 1 : 2]).toBe(1);
    expect(axisName([1, 1, 0], up)).toBeNull();
    expect(new Set(AXES.map((name) => axisOf(name, up).join())).size).toBe(3);
  });

  test('a new spin turns upright, as the model stands', async () => {
    start([], [model({ placement: { ...AS_IT_CAME, up: 'z' } })]);
    act(() => addSpin(shownDocument(), { model: uuid(50), name: 'Car / Wheel' }, 'z'));
    expect(shownDocument().action[0]).toMatchObject({ name: 'Wheel', body: { part: 'Car / Wheel', axis: [0, 0, 1] } });
    expect(await screen.findByLabelText(/Turns a minute/)).toHaveProperty('value', '7.50');
  });
});
