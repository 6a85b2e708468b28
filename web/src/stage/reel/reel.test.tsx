import { afterEach, describe, expect, test } from '@jest/globals';
import type { BodyOf, ProjectDocument, Row, ShotBody } from '@eskovan/core/document';
import { act, fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { undo } from '../../data/undo.ts';
import { useProject } from '../../data/use-project.ts';
import { selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import {
  exampleDocument,
  exampleRow,
  leaveProject,
  renderInProject,
  shownDocument,
  uuid,
} from '../../testing/studio.tsx';
import { BringIn } from './bring-in.tsx';
import { cutsToBeats } from './beats.ts';
import { ReelChecksCard } from './checks-card.tsx';
import {
  addShots,
  duplicateReel,
  duplicateShots,
  makeIndependent,
  moveShots,
  reelChanges,
  removeShots,
  rollCut,
  setFrames,
  slipShot,
  splitAt,
  stepShots,
  trimShot,
  turnRound,
} from './edit-reel.ts';
import { fitToWanted } from './fit.ts';
import { groupShots, renameGroup, ungroupShots, withGroup } from './group-shots.ts';
import { JoinCard } from './join-card.tsx';
import { Markers } from './markers.tsx';
import { openReel, shotsOf, type OpenReel } from './open-reel.ts';
import { OutCard } from './out-card.tsx';
import { ReelCard } from './reel-card.tsx';
import { clearFacts, setFacts } from './reel-facts.ts';
import { ReelsShelf } from './reels-shelf.tsx';
import { SeenCard } from './seen-card.tsx';
import { ShotCard } from './shot-card.tsx';

const LENS = { focalLengthMm: 24, sensor: { widthMm: 36, heightMm: 24 }, shift: [0, 0] as [number, number] };
const WALK: BodyOf<'move'> = {
  kind: 'walk',
  path: { closed: false, nodes: [] },
  eyeHeight: 1.6,
  pace: { by: 'speed', speed: 1.2, duration: 10, shape: 'soft' },
  gaze: { kind: 'ahead', distance: 2 },
  lens: LENS,
};
const VIEW: BodyOf<'view'> = {
  pose: { position: [1, 1.6, 2], orientation: [0, 0, 0, 1] },
  lens: LENS,
  thumbnail: null,
};
const REEL = uuid(40);
const OBJECTS = [
  { model: uuid(1), name: 'Desk / Scope' },
  { model: uuid(1), name: 'Shed / Bench' },
];
const MOVE = uuid(20);

const moveUse = (from: number, to?: number): ShotBody['use'] => ({
  kind: 'move',
  move: MOVE,
  from,
  ...(to !== undefined && { to }),
});
const shotRow = (n: number, name: string, change: Partial<ShotBody> & Pick<ShotBody, 'use'>): Row<'shot'> => ({
  ...exampleRow(50 + n, name, { reel: REEL, ...change }),
  order: n,
});

/** A reel of three shots: a stretch of a move, a view, and the rest of the move. */
const example = (change: Partial<ProjectDocument> = {}): ProjectDocument =>
  exampleDocument({
    move: [exampleRow(20, 'Walk', WALK)],
    view: [exampleRow(30, 'Door', VIEW)],
    reel: [exampleRow(40, 'Full', {} as BodyOf<'reel'>)],
    shot: [
      shotRow(1, 'A', { use: moveUse(0, 4) }),
      shotRow(2, 'B', { use: { kind: 'view', view: uuid(30) }, seconds: 2 }),
      shotRow(3, 'C', { use: moveUse(4, 8) }),
    ],
    ...change,
  });

let open: OpenReel;
function Stage({ show }: { show?: (open: OpenReel) => React.ReactNode }) {
  const document = useProject();
  open = openReel(document, document.reel[0]!);
  return show?.(open) ?? null;
}

const start = (show?: (open: OpenReel) => React.ReactNode, document = example()) => {
  setFacts({ measured: { [MOVE]: { duration: 12, loops: false } } });
  return renderInProject(<Stage {...(show && { show })} />, document);
};
const names = () => shotsOf(shownDocument(), REEL).map(({ name }) => name);
const frames = () => openReel(shownDocument(), shownDocument().reel[0]!).plan.shots.map((shot) => shot.frames);
const row = (i: number) => shotsOf(shownDocument(), REEL)[i]!;
const takeBack = () => act(() => void undo(open.row.projectId));

afterEach(async () => {
  await leaveProject();
  workbench.set({ time: 0 });
  selection.clear();
  clearFacts();
});

describe('shots', () => {
  test('are brought in last or where they are dropped, moved, stepped, copied and taken away, each as one step of undo', () => {
    start();
    act(() => addShots(open, [{ name: 'D', use: { kind: 'view', view: uuid(30) } }]));
    act(() => addShots(open, [{ name: 'E', use: moveUse(0) }], 1));
    expect(names()).toEqual(['A', 'E', 'B', 'C', 'D']);
    act(() => moveShots(open, [row(0).id, row(2).id], 5));
    expect(names()).toEqual(['E', 'C', 'D', 'A', 'B']);
    act(() => stepShots(open, [row(4).id], -1));
    expect(names()).toEqual(['E', 'C', 'D', 'B', 'A']);
    act(() => stepShots(open, [row(0).id], -1));
    expect(names()).toEqual(['E', 'C', 'D', 'B', 'A']);
    act(() => duplicateShots(open, [row(1).id]));
    expect(names()).toEqual(['E', 'C', 'C', 'D', 'B', 'A']);
    act(() => removeShots(open, [row(0).id, row(5).id]));
    expect(names()).toEqual(['C', 'C', 'D', 'B']);
    for (let i = 0; i < 6; i += 1) takeBack();
    expect(names()).toEqual(['A', 'B', 'C']);
  });

  test('are trimmed with ripple, rolled without, slipped, split, and set to a length', () => {
    start();
    act(() => trimShot(open, row(0), 'end', -25));
    expect(frames()).toEqual([75, 50, 100]);
    act(() => rollCut(open, 1, 10));
    expect(frames()).toEqual([85, 40, 100]);
    act(() => slipShot(open, row(2), 25));
    expect(row(2).body.use).toMatchObject({ from: 5, to: 9 });
    act(() => splitAt(open, row(2).id, 40));
    expect(frames()).toEqual([85, 40, 40, 60]);
    expect(row(3).body.use).toMatchObject({ from: 6.6 });
    act(() => setFrames(open, row(0), 50, 'pace'));
    expect(row(0).body.seconds).toBe(2);
    act(() => setFrames(open, row(3), 90, 'trim'));
    expect(frames()).toEqual([50, 40, 40, 90]);
    // What a move has not cannot be shown.
    act(() => setFrames(open, row(3), 9000, 'trim'));
    expect(openReel(shownDocument(), shownDocument().reel[0]!).plan.shots[3]!.to).toBeCloseTo(12, 6);
  });

  test('are grouped, moved together, renamed and on their own again; a group of one is none', () => {
    start();
    act(() => addShots(open, [{ name: 'D', use: { kind: 'view', view: uuid(30) } }]));
    act(() => groupShots(open, [row(0).id, row(2).id]));
    const groups = () => shotsOf(shownDocument(), REEL).map(({ body }) => body.group ?? null);
    expect(groups()).toEqual(['Group 1', null, 'Group 1', null]);
    expect(withGroup(open, [row(0).id])).toEqual([row(0).id, row(2).id]);
    act(() => moveShots(open, withGroup(open, [row(0).id]), 4));
    expect(names()).toEqual(['B', 'D', 'A', 'C']);
    act(() => renameGroup(open, 'Group 1', 'Upstairs'));
    expect(groups()).toEqual([null, null, 'Upstairs', 'Upstairs']);
    // Another one gets a name that is free.
    act(() => groupShots(open, [row(0).id, row(1).id]));
    expect(groups().slice(0, 2)).toEqual(['Group 1', 'Group 1']);
    act(() => ungroupShots(open, [row(2).id]));
    expect(groups().slice(2)).toEqual([null, null]);
    takeBack();
    expect(groups().slice(2)).toEqual(['Upstairs', 'Upstairs']);
  });

  test('a clip is as long as its file, trimmed and turned round as a move is', () => {
    start();
    const clip: ShotBody['use'] = {
      kind: 'clip',
      file: { sha256: 'a'.repeat(64), size: 1, mediaType: 'video/mp4' },
      fileName: 'site.mp4',
      duration: 6,
      from: 0,
    };
    act(() => addShots(open, [{ name: 'Clip', use: clip }]));
    expect(frames()[3]).toBe(150);
    act(() => trimShot(open, row(3), 'start', 25));
    expect(frames()[3]).toBe(125);
    expect(row(3).body.use).toMatchObject({ from: 1 });
    // There is no more of it.
    act(() => trimShot(open, row(3), 'end', 50));
    expect(frames()[3]).toBe(125);
    act(() => turnRound(open, row(3)));
    expect(row(3).body.use).toMatchObject({ kind: 'clip', backwards: true });
  });

  test('get a move of their own, and a reel takes its shots along, away and to a copy', () => {
    start();
    act(() => makeIndependent(shownDocument(), open, row(0)));
    const own = row(0).body.use;
    expect(own.kind === 'move' && own.move).not.toBe(MOVE);
    expect(shownDocument().move.map(({ name }) => name)).toEqual(['Walk', 'Walk for Full']);
    act(() =>
      duplicateReel(shownDocument(), shownDocument().reel[0]!, {
        name: 'Tall',
        body: { frame: { width: 9, height: 16 } },
      }),
    );
    const copy = shownDocument().reel[1]!;
    expect(shotsOf(shownDocument(), copy.id).map(({ name }) => name)).toEqual(['A', 'B', 'C']);
    expect(reelChanges(shownDocument(), copy)).toHaveLength(4);
  });

  test('are fitted to a wanted length, and cuts go to beats without making it longer', () => {
    start(
      undefined,
      example({
        reel: [
          exampleRow(40, 'Full', {
            wanted: 12,
            sound: {
              file: { sha256: 'a'.repeat(64), size: 1, mediaType: 'audio/wav' },
              fileName: 'a.wav',
              from: 0.2,
              start: 0,
              fadeIn: 0,
              fadeOut: 0,
              gain: 1,
            },
          } as BodyOf<'reel'>),
        ],
      }),
    );
    act(() => fitToWanted(open, 1.4));
    expect(frames().reduce((sum, n) => sum + n, 0)).toBe(300);
    const before = frames();
    act(() => cutsToBeats(open, [0.5, 5.5, 6.9]));
    expect(frames().reduce((sum, n) => sum + n, 0)).toBe(300);
    expect(frames()[0]).toBe(Math.round(5.3 * 25));
    takeBack();
    expect(frames()).toEqual(before);
  });
});

describe('cards of the Reel stage', () => {
  const enter = async (label: string, text: string) => {
    const field = screen.getByLabelText(label);
    await userEvent.clear(field);
    await userEvent.type(field, `${text}{Enter}`);
  };

  test('a shot is typed to the frame, turned round, pushed in, given words; what is no length says so', async () => {
    let index = 0;
    start((now) => <ShotCard open={now} row={now.shots[index]!} onOpen={() => undefined} />);
    await enter('Length', '00:00:03:05');
    expect(frames()[0]).toBe(80);
    await enter('Length', 'soon');
    expect(screen.getByRole('alert').textContent).toContain('Type a timecode');
    await enter('Length', '72f');
    expect(frames()[0]).toBe(72);
    fireEvent.keyDown(screen.getByLabelText('Length'), { key: 'ArrowUp' });
    expect(frames()[0]).toBe(73);
    await userEvent.click(screen.getByRole('button', { name: 'Backwards' }));
    expect(row(0).body.use).toMatchObject({ backwards: true });
    await enter('Caption of the shot', 'The hall');
    expect(row(0).body.caption).toEqual({ text: 'The hall', place: 'lower third' });
    await userEvent.click(screen.getByRole('checkbox', { name: /keeps its length/ }));
    expect(row(0).body.keeps).toBe(true);
    index = 1;
    act(() => trimShot(open, row(1), 'end', 5));
    expect(await screen.findByText('a view, held')).toBeTruthy();
  });

  test('a card has words, a ground and a place for them', async () => {
    const card = shotRow(1, 'Card', {
      use: { kind: 'title', title: { heading: 'Hello', text: '', ground: 'paper', align: 'middle' } },
    });
    start((now) => <ShotCard open={now} row={now.shots[0]!} onOpen={() => undefined} />, example({ shot: [card] }));
    await enter('Heading', 'Ternholm');
    await userEvent.click(screen.getByRole('radio', { name: 'Ink' }));
    await userEvent.click(screen.getByRole('radio', { name: 'Left' }));
    expect(row(0).body.use).toEqual({
      kind: 'title',
      title: { heading: 'Ternholm', text: '', ground: 'ink', align: 'left' },
    });
  });

  test('a join says what it does, becomes a blend, and says when the shots are too short for it', async () => {
    start((now) => <JoinCard open={now} index={1} link={null} ahead={null} />);
    act(() =>
      setFacts({
        joins: {
          [row(1).id]: {
            flow: { score: 0.2, word: 'stops', before: 0.31, after: 0.02, agreement: 1 },
            notes: [{ kind: 'crosses the line' }],
            through: [],
          },
        },
      }),
    );
    expect(screen.getByText('stops')).toBeTruthy();
    expect(screen.getByTestId('join-flow').textContent).toBe('0.31 → 0.02');
    expect(screen.getByText(/crossed its line/)).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'Blend' }));
    expect(row(1).body.join).toEqual({ kind: 'blend', seconds: 1 });
    await enter('Takes, s', '5');
    expect(screen.getByText(/too short for more than 1\.96 s/)).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'Dip' }));
    await userEvent.click(screen.getByRole('radio', { name: 'Paper' }));
    expect(row(1).body.join).toEqual({ kind: 'dip', seconds: 5, to: 'paper' });
  });

  test('the reel has a rate, a ratio, a length and markers; changing the rate keeps seconds', async () => {
    start((now) => <ReelCard open={now} />);
    await userEvent.click(screen.getByRole('button', { name: 'Set a length' }));
    await enter('Wanted', '12s');
    expect(shownDocument().reel[0]!.body.wanted).toBe(12);
    await userEvent.click(screen.getByRole('button', { name: /^Fit to 12/ }));
    expect(frames().reduce((sum, n) => sum + n, 0)).toBe(300);
    workbench.set({ time: 3 });
    await userEvent.click(screen.getByRole('button', { name: 'Mark here' }));
    expect(shownDocument().reel[0]!.body.markers).toMatchObject([{ time: 3, name: 'Marker 1' }]);
    await userEvent.click(screen.getByRole('checkbox', { name: /actions run through/ }));
    expect(shownDocument().reel[0]!.body.throughout).toBe(true);
  });

  test('a marker is pressed to go there, and moved by keys, to the frame', async () => {
    const marker = { id: uuid(90), time: 2, name: 'Deck' };
    const scale = { x: (time: number) => 100 * time, timeAt: (x: number) => x / 100, shows: () => true };
    start(
      (now) => <Markers open={now} scale={scale as never} />,
      example({ reel: [exampleRow(40, 'Full', { markers: [marker] } as BodyOf<'reel'>)] }),
    );
    const handle = screen.getByRole('button', { name: 'Go to marker Deck' });
    await userEvent.click(handle);
    expect(workbench.get().time).toBe(2);
    await userEvent.keyboard('{ArrowRight}');
    const time = () => shownDocument().reel[0]!.body.markers![0]!.time;
    expect(time()).toBeCloseTo(2.04, 9);
    await userEvent.keyboard('{Shift>}{ArrowLeft}{/Shift}');
    expect(time()).toBeCloseTo(1.64, 9);
    expect(workbench.get().time).toBeCloseTo(1.64, 9);
    takeBack();
    expect(time()).toBeCloseTo(2.04, 9);
  });

  test('what is seen, promised and missing is said; findings lead to their shots', async () => {
    start(
      (now) => (
        <>
          <SeenCard open={now} />
          <ReelChecksCard open={now} />
        </>
      ),
      example({
        reel: [exampleRow(40, 'Full', { promised: ['Café'], promisedObjects: OBJECTS } as BodyOf<'reel'>)],
        view: [],
      }),
    );
    act(() =>
      setFacts({
        cover: [
          { room: 'Hall', storey: 'Ground', seen: 4, inside: 2, spans: [[1, 5]] },
          { room: 'Café', storey: 'Ground', seen: 0, inside: 0, spans: [] },
        ],
        objects: [{ model: uuid(1), name: 'Desk / Scope', seen: 2, spans: [[1, 3]] }],
        outside: [{ shot: row(0).id, from: 1.5, to: 3 }],
        current: true,
        joins: {
          [row(2).id]: {
            flow: { score: 0.1, word: 'races', before: 0, after: 0.4, agreement: 1 },
            notes: [],
            through: [],
          },
        },
      }),
    );
    expect(
      within(screen.getByRole('list', { name: 'Rooms and objects seen' })).getByText('promised, never seen'),
    ).toBeTruthy();
    const findings = within(screen.getByRole('list', { name: 'Findings of the reel' }));
    expect(findings.getByText(/2 B: what it showed is not in the project/)).toBeTruthy();
    expect(findings.getByText(/Café was promised/)).toBeTruthy();
    expect(findings.getByText(/Shed \/ Bench was promised and is not in the site any more/)).toBeTruthy();
    expect(findings.queryByText(/Scope/)).toBeNull();
    const seen = within(screen.getByRole('list', { name: 'Rooms and objects seen' }));
    expect(seen.getByText('Desk / Scope')).toBeTruthy();
    await userEvent.click(findings.getByText(/1 A: What it looks at is outside the cut-out for 1.5 s/));
    expect(workbench.get().time).toBe(1.5);
    await userEvent.click(seen.getByRole('button', { name: 'No longer promise Shed / Bench' }));
    expect(shownDocument().reel[0]!.body.promisedObjects).toEqual([OBJECTS[0]]);
    await userEvent.click(findings.getByText(/Join 2 → 3 races/));
    expect(workbench.get().time).toBeCloseTo(5.96, 6);
  });

  test('moves, views and cards are listed and found; what there is none of says where it comes from', async () => {
    start((now) => <BringIn open={now} />, example({ move: [] }));
    expect(screen.getByText(/No moves yet/)).toBeTruthy();
    await userEvent.click(screen.getByRole('radio', { name: 'Views' }));
    await userEvent.click(screen.getByRole('button', { name: 'Bring in Door' }));
    await userEvent.click(screen.getByRole('radio', { name: 'Cards' }));
    await userEvent.click(screen.getByRole('button', { name: 'Bring in Opening card' }));
    expect(names()).toEqual(['A', 'B', 'C', 'Door', 'Opening card']);
    await userEvent.click(screen.getByRole('radio', { name: 'Moves' }));
  });

  test('an order made elsewhere is taken by name; what it does not know is said and stays', async () => {
    start((now) => <OutCard open={now} link={null} ahead={null} onRender={null} />);
    const list = [
      'TITLE: Tuesday',
      'FCM: NON-DROP FRAME',
      '',
      ...edlEvent(1, 'C', '00:00:05:00', '00:00:07:00', 0, 50),
      ...edlEvent(2, 'Nobody', '00:00:00:00', '00:00:01:00', 50, 75),
      ...edlEvent(3, 'a', '00:00:01:00', '00:00:03:00', 75, 125),
    ].join('\n');
    const file = new File([list], 'tuesday.edl', { type: 'text/plain' });
    Object.defineProperty(file, 'text', { value: () => Promise.resolve(list) });
    await userEvent.upload(screen.getByLabelText('List file'), file);
    expect(names()).toEqual(['C', 'A', 'B']);
    expect(row(0).body.use).toMatchObject({ from: 5, to: 7 });
    expect(frames()).toEqual([50, 50, 50]);
    takeBack();
    expect(names()).toEqual(['A', 'B', 'C']);
  });

  test('reels are made, named, chosen, copied in another ratio and taken away with their shots', async () => {
    start((now) => <ReelsShelf selected={now.row} />);
    await userEvent.click(screen.getByRole('button', { name: 'More for Full' }));
    await userEvent.click(screen.getByRole('menuitem', { name: 'The same shots in 9 : 16' }));
    expect(shownDocument().reel[1]).toMatchObject({ name: 'Full, tall', body: { frame: { width: 9, height: 16 } } });
    await userEvent.click(screen.getByRole('button', { name: 'New reel' }));
    expect(shownDocument().reel).toHaveLength(3);
    await userEvent.click(screen.getByRole('button', { name: 'More for Full' }));
    await userEvent.click(screen.getByRole('menuitem', { name: 'Delete' }));
    expect(names()).toEqual([]);
    takeBack();
    expect(names()).toEqual(['A', 'B', 'C']);
  });
});

const code = (frame: number) =>
  `01:00:${String(Math.floor(frame / 25)).padStart(2, '0')}:${String(frame % 25).padStart(2, '0')}`;
const edlEvent = (n: number, name: string, from: string, to: string, start: number, end: number) => [
  `00${n}  AX       V     C        ${from} ${to} ${code(start)} ${code(end)}`,
  `* FROM CLIP NAME: ${name}`,
];
