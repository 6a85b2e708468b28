import type { BodyOf, Join, ShotUse } from '@eskovan/core/document';
import { idOf } from './id.ts';

type Shot = Omit<BodyOf<'shot'>, 'reel'> & { name: string };

const move = (name: string, from: number, to: number, more: Partial<Shot> = {}): Shot => ({
  name,
  use: { kind: 'move', move: idOf(`move ${name}`), from, to },
  ...more,
});
const view = (
  name: string,
  seconds: number,
  drift: (ShotUse & { kind: 'view' })['drift'],
  more: Partial<Shot> = {},
): Shot => ({
  name,
  use: { kind: 'view', view: idOf(`view ${name}`), ...(drift && { drift }) },
  seconds,
  ...more,
});
const dissolve = (seconds: number): Join => ({ kind: 'dissolve', seconds });
const caption = (text: string): Pick<Shot, 'caption'> => ({ caption: { text, place: 'lower third' } });

const OPENING: Shot = {
  name: 'Opening card',
  use: {
    kind: 'title',
    title: { heading: 'Ternholm Observatory', text: 'A house for birds and people', ground: 'paper', align: 'middle' },
  },
  seconds: 3,
  keeps: true,
};
const CLOSING: Shot = {
  name: 'Closing card',
  use: {
    kind: 'title',
    title: { heading: 'Thank you', text: 'Ternholm Parish, round 1', ground: 'ink', align: 'middle' },
  },
  seconds: 3,
  keeps: true,
  join: { kind: 'dip', seconds: 1, to: 'black' },
};

interface DemoReel {
  name: string;
  body: BodyOf<'reel'>;
  shots: readonly Shot[];
}

const REELS: readonly DemoReel[] = [
  {
    name: 'Full reel',
    body: {
      wanted: 62,
      promised: ['Hall', 'Tide gallery', 'Deck', 'Café'],
      promisedObjects: [
        { model: idOf('model scope'), name: 'Heron field scope / Tube' },
        { model: idOf('model shuttle'), name: 'Shuttle / Car / Body' },
      ],
      markers: [{ id: idOf('marker deck'), time: 31, name: 'Parish asked: the deck' }],
    },
    shots: [
      OPENING,
      view('Arrival from the marsh', 4, { way: 'in', distance: 0.8 }, { join: dissolve(0.8) }),
      move('Arrival to the tide gallery', 8, 18, caption('Through the hall')),
      move('Around the tide table', 2, 10.4, { join: dissolve(1), ...caption('The tide gallery') }),
      view('From the bridge', 4, { way: 'right', distance: 0.5 }),
      move('Up to the viewing deck', 40, 51, caption('Up to the deck')),
      move('About the field scope', 0, 8, { join: dissolve(0.8) }),
      move('On the shuttle', 2, 9),
      move('Along the boardwalk', 27, 35, caption('Out into the marsh')),
      CLOSING,
    ],
  },
  {
    name: 'Parish meeting',
    body: { wanted: 30, promised: ['Hall', 'Deck'] },
    shots: [
      move('To the south front', 0, 6),
      move('Arrival to the tide gallery', 9, 17, { join: { kind: 'blend', seconds: 1 } }),
      move('Up to the viewing deck', 40, 49),
      view('Deck bench, seated', 4, { way: 'in', distance: 0.3 }, { join: dissolve(0.8), numbered: true }),
      { ...CLOSING, seconds: 3.6 },
    ],
  },
  {
    name: 'For the phone',
    body: { frame: { width: 9, height: 16 }, wanted: 20 },
    shots: [
      move('About the field scope', 0, 8),
      move('Waiting for the shuttle', 4, 10),
      view('Hall and its terns', 3, { way: 'up', distance: 0.4 }),
      { ...CLOSING, seconds: 3 },
    ],
  },
];

/** The reels of the commission and their shots, as rows. */
export const REEL_ROWS = REELS.flatMap(({ name, body, shots }, r) => {
  const reel = idOf(`reel ${name}`);
  return [
    { kind: 'reel' as const, id: reel, name, order: r + 1, body },
    ...shots.map(({ name: shot, ...rest }, i) => ({
      kind: 'shot' as const,
      id: idOf(`shot ${name} ${i}`),
      name: shot,
      order: i + 1,
      body: { ...rest, reel } satisfies BodyOf<'shot'>,
    })),
  ];
});
