import { describe, expect, test } from '@jest/globals';
import { isGlass, readModel } from './index.ts';
import { saysGlass } from './glass-by-name.ts';

const bytes = (text: string) => new TextEncoder().encode(text);

describe('names that say glass', () => {
  test.each([
    'Glass',
    'window_glass_01',
    'Glazing',
    'Pane 3',
    'Isolierglas',
    'Verglasung',
    'Vitrage',
    'verre clair',
    'Vidrio',
    'Vetro',
  ])('%s', (name) => expect(saysGlass(name)).toBe(true));
  test.each([
    'Fibreglass',
    'Fiberglass batt',
    'Glass wool',
    'Glaswolle',
    'Glass fibre',
    'Reading glasses',
    'Hourglass',
    'Glass door frame',
    'Panel',
    'Glazing bead',
    'Window',
  ])('not %s', (name) => expect(saysGlass(name)).toBe(false));
});

describe('an OBJ without its materials', () => {
  const quad = (name: string, z: number, material = '') =>
    `o ${name}\n${material && `usemtl ${material}\n`}v 0 0 ${z}\nv 1 0 ${z}\nv 1 1 ${z}\nv 0 1 ${z}\nf -4 -3 -2 -1\n`;

  test('what is called glass is seen through, and the card says so; the rest is plain', async () => {
    const model = await readModel(
      bytes(quad('Wall', 0) + quad('Window_glass', 1) + quad('Window_frame', 2) + quad('Door', 3, 'glazing')),
      'house.obj',
    );
    const clear = Object.fromEntries(
      model.parts.map(({ name, material }) => [name, isGlass(model.materials[material]!)]),
    );
    expect(clear).toEqual({ Wall: false, Window_glass: true, Window_frame: false, Door: true });
    expect(model.materials[model.parts.find(({ name }) => name === 'Door')!.material]!.name).toBe('glazing');
    expect(model.notes.join(' ')).toContain('“Window_glass”, “Door”: taken as glass');
  });

  test('where the file says what it is made of, its name says nothing', async () => {
    const files = bytes(`mtllib m.mtl\n${quad('Glass', 0, 'painted')}`);
    const zip = await import('fflate').then(({ zipSync }) =>
      zipSync({ 'a.obj': files, 'm.mtl': bytes('newmtl painted\nKd 0.2 0.2 0.2\n') }),
    );
    const model = await readModel(zip, 'a.zip');
    expect(model.parts.map(({ material }) => isGlass(model.materials[material]!))).toEqual([false]);
    expect(model.notes.join(' ')).not.toContain('taken as glass');
  });

  test('a model in which nothing is called so stays the very same', async () => {
    const model = await readModel(bytes(quad('Wall', 0)), 'wall.obj');
    expect(model.materials).toHaveLength(1);
    expect(model.notes).toEqual([]);
  });
});
