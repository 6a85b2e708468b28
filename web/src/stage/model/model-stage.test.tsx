import { ALL_LIT, AS_IT_CAME, type BodyOf } from '@eskovan/core/document';
import { liveRows } from '../../data/changes.ts';
import { afterEach, describe, expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { workbench } from '../../desk/workbench.ts';
import { undo } from '../../data/undo.ts';
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
import { hexOf, linearOf } from './colour.ts';
import { duplicateLight, removeLight } from './edit-lights.ts';
import { findNodes, treeOf } from './part-tree.ts';
import { changeMaterial, changeParts, namesWithin } from './edit-parts.ts';
import { materialsOf, partsOf } from './materials.ts';
import { RightCard } from './right-card.tsx';
import { LightsCard } from './lights-card.tsx';
import { PlaceCard } from './place-card.tsx';
import { WalkerCard } from './walker-card.tsx';

const model = (change: Partial<BodyOf<'model'>> = {}) =>
  exampleRow<'model'>(
    50,
    'House',
    exampleModel({
      fileName: 'house.stl',
      source: { sha256: 'a'.repeat(64), size: 2_500_000, mediaType: 'model/gltf-binary' },
      bounds: { min: [0, 0, 0], max: [24_000, 12_000, 6_000] },
      triangles: 34_000,
      placement: { metresPerUnit: 0.001, up: 'z', turn: 0, position: [0, 0, 0] },
      notes: ['STL holds shape only.'],
      ...change,
    }),
  );
const part = (name: string, at = 'house'): PartInfo => ({
  model: at,
  name,
  triangles: 10,
  bounds: { min: [0, 0, 0], max: [1, 1, 1] },
  materials: [
    { name: 'Oak', color: [0.5, 0.5, 0.5], roughness: 0.9, textured: false, glows: false, clear: false, unlit: false },
  ],
  role: null,
});

afterEach(async () => {
  workbench.set({ part: null, material: null, alone: null, light: null });
  await leaveProject();
});

const field = (name: RegExp) => screen.getByRole('textbox', { name });
const type = (name: RegExp, text: string) => {
  fireEvent.change(field(name), { target: { value: text } });
  fireEvent.keyDown(field(name), { key: 'Enter' });
};
const placement = () => shownDocument().model[0]!.body.placement;

describe('Is this right?', () => {
  const candidate = (metresPerUnit: number, up: 'y' | 'z', share: number) => ({
    metresPerUnit,
    up,
    share,
    why: [`Walls are ${share * 10} cm thick then.`],
  });
  const rows = Array.from({ length: 40 }, () => '00ffffff00');
  const guess = (...candidates: ReturnType<typeof candidate>[]) => ({ candidates, silhouettes: { y: rows, z: rows } });

  test('says the size as placed, what was guessed and why, and what could not be read', () => {
    const row = model({ guess: guess(candidate(0.001, 'z', 0.97)) });
    renderInProject(<RightCard row={row} />, exampleDocument({ model: [row] }));
    expect(screen.getByText('24.00 × 12.00 × 6.00')).toBeTruthy();
    expect(screen.getByText(/Millimetres, Z up\. Walls are/)).toBeTruthy();
    expect(screen.getByText('STL holds shape only.')).toBeTruthy();
  });

  test('where it is not sure, the likeliest are shown, one press each, and never again once a person has said it', async () => {
    const row = model({ placement: AS_IT_CAME, guess: guess(candidate(1, 'y', 0.5), candidate(0.001, 'z', 0.4)) });
    renderInProject(<RightCard row={row} />, exampleDocument({ model: [row] }));
    fireEvent.click(screen.getByRole('button', { name: /millimetres, Z up/ }));
    expect(placement()).toMatchObject({ metresPerUnit: 0.001, up: 'z' });
    expect(shownDocument().model[0]!.body.settled).toBe(true);
    undo(PROJECT);
    await waitFor(() => expect(placement()).toEqual(AS_IT_CAME));
    expect(shownDocument().model[0]!.body.settled).toBe(false);
  });

  test('a person who has chosen a unit is not asked again', () => {
    const row = model({ settled: true, guess: guess(candidate(1, 'y', 0.5), candidate(0.01, 'z', 0.4)) });
    renderInProject(<RightCard row={row} />, exampleDocument({ model: [row] }));
    expect(screen.getByText(/As you have set it/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /up$/ })).toBeNull();
  });

  test('survey coordinates are said once; the fields say how far it stands from them', () => {
    const far = { ...AS_IT_CAME, position: [-512_340, 0, 6_021_077] as [number, number, number] };
    const bounds = {
      min: [512_330, 0, -6_021_085] as [number, number, number],
      max: [512_350, 6, -6_021_069] as [number, number, number],
    };
    const row = model({ placement: far, bounds });
    renderInProject(<RightCard row={row} />, exampleDocument({ model: [row] }));
    expect(screen.getByText(/East 512,340, North 6,021,077/)).toBeTruthy();
    expect(field(/East/)).toHaveProperty('value', '0.00');
    type(/East/, '3m');
    expect(placement().position).toEqual([-512_337, 0, 6_021_077]);
  });

  test('turns by degrees, moves by metres, drops to the ground', () => {
    const row = model({ bounds: { min: [0, 0, 500], max: [24_000, 12_000, 6_500] } });
    renderInProject(<RightCard row={row} />, exampleDocument({ model: [row] }));
    type(/Turn/, '90');
    expect(placement().turn).toBeCloseTo(Math.PI / 2);
    type(/East/, '2.5m');
    expect(placement().position[0]).toBe(2.5);
    fireEvent.click(screen.getByRole('button', { name: 'Drop to ground' }));
    expect(placement().position[1]).toBeCloseTo(-0.5);
  });

  test('warns about what is a hundred times too large', () => {
    const row = model({ placement: AS_IT_CAME });
    renderInProject(<RightCard row={row} />, exampleDocument({ model: [row] }));
    expect(screen.getByText(/large for a commission/)).toBeTruthy();
  });
});

const night = exampleRow<'light'>(70, 'Night', {
  instant: '2026-08-28T22:00:00.000Z',
  sky: 'clear',
  lamps: ALL_LIT,
  exposure: 0,
  picture: null,
});

describe('lights', () => {
  const both = (
    <>
      <LightsCard />
      <PlaceCard />
    </>
  );
  test('the sun is set by the clock on the wall there; changing the zone keeps that clock, in every light', () => {
    renderInProject(both, exampleDocument({ light: [night] }));
    const time = screen.getByLabelText('Time') as HTMLInputElement;
    expect(time.value).toBe('16:20');
    fireEvent.change(time, { target: { value: '09:00' } });
    expect(shownDocument().project.body.sun.instant).toBe('2026-08-28T07:00:00.000Z');
    type(/Clock ahead/, '1');
    expect(shownDocument().project.body.sun).toMatchObject({ clock: 1, instant: '2026-08-28T08:00:00.000Z' });
    expect(shownDocument().light[0]!.body.instant).toBe('2026-08-28T23:00:00.000Z');
  });

  test('say where the sun stands, and when it is night', () => {
    renderInProject(both, exampleDocument({ light: [night] }));
    expect(screen.queryByText('below the horizon')).toBeNull();
    expect(screen.getByText(/south-west|west/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: /Night/ }));
    expect(screen.getByText('below the horizon')).toBeTruthy();
  });

  test('what is set belongs to the light that is chosen; the project’s own stays, and back', () => {
    renderInProject(both, exampleDocument({ light: [night] }));
    const own = shownDocument().project.body;
    fireEvent.click(screen.getByRole('button', { name: /Night/ }));
    fireEvent.click(screen.getByRole('radio', { name: 'Overcast' }));
    type(/Exposure/, '1');
    expect(shownDocument().light[0]!.body).toMatchObject({ sky: 'overcast', exposure: 1 });
    expect(shownDocument().project.body).toEqual(own);
    fireEvent.click(screen.getByRole('button', { name: /The project’s light/ }));
    fireEvent.click(screen.getByRole('radio', { name: 'Overcast' }));
    expect(shownDocument().project.body.sky).toBe('overcast');
  });

  test('a duplicate is a light of its own; deleting gives way to the project’s', () => {
    renderInProject(both, exampleDocument({ light: [night] }));
    act(() => duplicateLight(shownDocument(), 'Night', night.body));
    act(() => duplicateLight(shownDocument(), 'Night', night.body));
    expect(shownDocument().light.map(({ name }) => name)).toEqual(['Night', 'Night copy', 'Night copy 2']);
    expect(workbench.get().light).toBe(shownDocument().light[2]!.id);
    act(() => removeLight(shownDocument().light[2]!));
    expect(liveRows(shownDocument().light)).toHaveLength(2);
    expect(workbench.get().light).toBeNull();
  });
});

test('the walker is set within what bodies are', () => {
  renderInProject(<WalkerCard />, exampleDocument());
  type(/Radius/, '30cm');
  expect(shownDocument().project.body.walker.radius).toBeCloseTo(0.3);
  type(/Steepest/, '500');
  expect(shownDocument().project.body.walker.slope).toBe(80);
});

describe('parts', () => {
  const parts = ['Hall / Table / Top', 'Hall / Table / Legs', 'Hall / Bench', 'Roof', 'Hallway'].map((name) =>
    part(name),
  );

  test('make the tree that their names spell, in the order of the file', () => {
    const roots = treeOf([...parts, part('Elsewhere', 'other')], 'house');
    expect(roots.map(({ label, names }) => [label, names.length])).toEqual([
      ['Hall', 3],
      ['Roof', 1],
      ['Hallway', 1],
    ]);
    expect(roots[0]!.children.map(({ label }) => label)).toEqual(['Table', 'Bench']);
    expect(roots[0]!.triangles).toBe(30);
    expect(findNodes(roots, ' le').map(({ path }) => path)).toEqual(['Hall / Table', 'Hall / Table / Legs']);
  });

  test('are found by what they are made of, and their materials change everywhere in one step', () => {
    const wood = part('Hall / Stool');
    const steel = {
      name: 'Steel',
      color: [0.6, 0.6, 0.6] as [number, number, number],
      roughness: 0.4,
      textured: false,
      glows: false,
      clear: false,
      unlit: false,
    };
    const all = [
      ...parts,
      { ...part('Hall / Lamp'), materials: [steel] },
      { ...wood, materials: [...wood.materials, steel] },
    ];
    expect(findNodes(treeOf(all, 'house'), 'steel').map(({ path }) => path)).toEqual(['Hall / Lamp', 'Hall / Stool']);
    expect(materialsOf(all, 'house').map(({ name, parts: count }) => [name, count])).toEqual([
      ['Oak', 6],
      ['Steel', 2],
    ]);
    expect(partsOf(all, { model: 'house', name: 'Steel' }).map(({ name }) => name)).toEqual([
      'Hall / Lamp',
      'Hall / Stool',
    ]);
    const row = model();
    renderInProject(<p />, exampleDocument({ model: [row] }));
    changeMaterial(row, 'Steel', 'Colour', { color: [1, 0, 0] });
    changeMaterial(row, 'Steel', 'Roughness', { roughness: 0.1 });
    expect(shownDocument().model[0]!.body.materials).toEqual({ Steel: { color: [1, 0, 0], roughness: 0.1 } });
    changeMaterial(row, 'Steel', 'Own look', { color: undefined, roughness: undefined });
    expect(shownDocument().model[0]!.body.materials).toEqual({});
    undo(PROJECT);
    expect(shownDocument().model[0]!.body.materials.Steel).toEqual({ color: [1, 0, 0], roughness: 0.1 });
  });

  test('of a group are those below it, not those that begin with the same letters', () => {
    expect(namesWithin(parts, { model: 'house', name: 'Hall' })).toHaveLength(3);
    expect(namesWithin(parts, { model: 'other', name: 'Hall' })).toEqual([]);
  });

  test('are hidden, coloured and brought back, each as one step of undo', () => {
    const row = model();
    renderInProject(<p />, exampleDocument({ model: [row] }));
    const looks = () => shownDocument().model[0]!.body.parts;
    changeParts(row, ['Roof', 'Hallway'], 'Hide', { hidden: true });
    changeParts(row, ['Roof'], 'Colour', { color: [1, 0, 0] });
    expect(looks()).toEqual({ Roof: { hidden: true, color: [1, 0, 0] }, Hallway: { hidden: true } });
    changeParts(row, ['Roof', 'Hallway'], 'Show', { hidden: undefined });
    expect(looks()).toEqual({ Roof: { color: [1, 0, 0] } });
    undo(PROJECT);
    expect(looks()).toEqual({ Roof: { hidden: true, color: [1, 0, 0] }, Hallway: { hidden: true } });
    expect(uuid(50)).toBe(row.id);
  });

  test('colours go from the screen to linear light and back', () => {
    for (const hex of ['#000000', '#ffffff', '#8fa9ad', '#010203']) expect(hexOf(linearOf(hex))).toBe(hex);
    // IEC 61966-2-1: sRGB 0.5 is 0.2140 linear.
    expect(linearOf('#808080')[0]).toBeCloseTo(0.2159, 3);
  });
});
