import { describe, expect, test } from '@jest/globals';
import Srt from 'srt-parser-2';
import Timecode from 'smpte-timecode';
import type { Rate } from '../document/index.ts';
import { FormatError } from '../format/index.ts';
import { CompiledReel, frameTime, isDropFrame, timecodeOf } from '../reel/index.ts';
import { planOf, randomReel, RATES, straightMove, viewShot, moveShot, type MadeShot } from '../reel/reel.fixture.ts';
import { randomFrom } from '../random.fixture.ts';
import {
  readEdl,
  readOtio,
  sendReel,
  writeCutsCsv,
  writeEdl,
  writeOtio,
  writeSamplesCsv,
  writeSrt,
  rateNear,
  type SentReel,
} from './index.ts';

const named = (shots: readonly MadeShot[], rate: Rate, name = 'Full reel'): SentReel =>
  sendReel(
    name,
    planOf(shots, rate),
    shots.map(({ id, body }, i) => ({ id, body, name: `Shot ${i + 1}, “north”`, source: `Move ${i}` })),
    [{ id: shots[0]!.id, time: 1, name: 'Client asked' }],
  );

/** What a file should say of a reel. */
const expected = ({ shots, rate }: SentReel) =>
  shots.map(({ name, planned }) => ({
    name,
    frames: planned.frames,
    overlap: planned.overlap,
    from: ((planned.backwards ? planned.to : planned.from) * rate.num) / rate.den,
    speed: planned.backwards ? -planned.speed : planned.speed,
  }));

function eachReel(count: number, look: (reel: SentReel, rate: Rate) => void): void {
  const random = randomFrom(23);
  for (let i = 0; i < count; i += 1) {
    const rate = RATES[i % RATES.length]!;
    look(named(randomReel(random), rate), rate);
  }
}

/** As much of an item of a track as its rules need. */
interface OtioItem {
  OTIO_SCHEMA: string;
  source_range: { duration: { value: number; rate: number } };
  in_offset: { value: number };
  out_offset: { value: number };
}

describe('OpenTimelineIO', () => {
  test('out and in again is the same reel, at every rate', () => {
    eachReel(140, (reel, rate) => {
      const back = readOtio(writeOtio(reel), 'reel.otio');
      expect(back.rate).toEqual(rate);
      expect(back.leftOut).toEqual([]);
      expect(back.shots.map(({ id }) => id)).toEqual(reel.shots.map(({ id }) => id));
      back.shots.forEach(({ name, frames, overlap, from, speed, join }, i) => {
        const wanted = expected(reel)[i]!;
        expect({ name, frames, overlap }).toEqual({
          name: wanted.name,
          frames: wanted.frames,
          overlap: wanted.overlap,
        });
        expect(from).toBeCloseTo(wanted.from, 6);
        expect(speed).toBeCloseTo(wanted.speed, 9);
        expect(join).toBe(reel.shots[i]!.planned.join?.kind ?? null);
      });
    });
  });

  // By the schema's own rules: clips follow each other without their transitions; a transition reaches into both.
  test('its clips add up to the reel, and transitions fit what lies about the cut', () => {
    eachReel(70, (reel, rate) => {
      const { tracks } = JSON.parse(writeOtio(reel)) as { tracks: { children: [{ children: OtioItem[] }] } };
      const items = tracks.children[0].children;
      const clips = items.filter(({ OTIO_SCHEMA }) => OTIO_SCHEMA === 'Clip.1');
      const total = clips.reduce((sum, clip) => sum + clip.source_range.duration.value, 0);
      expect(total).toBe(planFrames(reel));
      items.forEach((item, i) => {
        if (item.OTIO_SCHEMA !== 'Transition.1') return;
        expect([items[i - 1]!.OTIO_SCHEMA, items[i + 1]!.OTIO_SCHEMA]).toEqual(['Clip.1', 'Clip.1']);
        expect(item.in_offset.value).toBeLessThanOrEqual(items[i - 1]!.source_range.duration.value);
        expect(item.out_offset.value).toBeLessThanOrEqual(items[i + 1]!.source_range.duration.value);
      });
      expect(clips[0]!.source_range.duration.rate).toBe(rate.num / rate.den);
    });
  });

  // A timeline as the format's documentation describes one, written by hand, from memory.
  const theirs = {
    OTIO_SCHEMA: 'Timeline.1',
    name: 'Edited elsewhere',
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      children: [
        {
          OTIO_SCHEMA: 'Track.1',
          kind: 'Video',
          children: [
            clip('Deck', 10, 48),
            { OTIO_SCHEMA: 'Transition.1', transition_type: 'SMPTE_Dissolve', in_offset: time(6), out_offset: time(6) },
            { ...clip('Arrival', 100, 72), effects: [{ OTIO_SCHEMA: 'LinearTimeWarp.1', time_scalar: 2 }] },
            { OTIO_SCHEMA: 'Gap.1', source_range: range(0, 24) },
            { OTIO_SCHEMA: 'Clip.2', name: 'Unmeasured' },
            'nonsense',
          ],
        },
        { OTIO_SCHEMA: 'Track.1', kind: 'Audio', children: [] },
      ],
    },
  };
  function time(value: number) {
    return { OTIO_SCHEMA: 'RationalTime.1', rate: 23.976, value };
  }
  function range(start: number, duration: number) {
    return { OTIO_SCHEMA: 'TimeRange.1', start_time: time(start), duration: time(duration) };
  }
  function clip(name: string, start: number, duration: number) {
    return { OTIO_SCHEMA: 'Clip.1', name, source_range: range(start, duration), effects: [] };
  }

  test('what another program wrote is read; what cannot be used is counted and said', () => {
    const reel = readOtio(JSON.stringify(theirs), 'theirs.otio');
    expect(reel.rate).toEqual({ num: 24_000, den: 1001 });
    expect(reel.shots.map(({ name, frames, overlap, id }) => [name, frames, overlap, id])).toEqual([
      ['Deck', 54, 0, null],
      ['Arrival', 78, 12, null],
    ]);
    expect(reel.shots[1]!.speed).toBe(2);
    expect(reel.leftOut).toEqual([
      '1 tracks of sound.',
      '1 things in its track that are no clips.',
      '1 gaps or nested tracks: a reel has none.',
      '1 clips that say no length.',
    ]);
  });

  test.each(['', '{', '[]', '{"OTIO_SCHEMA":"Clip.1"}', '{"OTIO_SCHEMA":"Timeline.1","tracks":{"children":[]}}'])(
    'a file that is none says so: %p',
    (text) => expect(() => readOtio(text, 'x.otio')).toThrow(FormatError),
  );
});

const planFrames = ({ shots }: SentReel) => Math.max(...shots.map(({ planned }) => planned.start + planned.frames));

/** Events of a list, read by its fixed columns and nothing else. */
function byColumns(text: string): { event: string; transition: string; length: number; codes: string[] }[] {
  return text
    .split('\r\n')
    .filter((line) => /^\d{3} /.test(line))
    .map((line) => ({
      event: line.slice(0, 3),
      transition: line.slice(20, 21),
      length: Number(line.slice(25, 28)),
      codes: [line.slice(29, 40), line.slice(41, 52), line.slice(53, 64), line.slice(65, 76)],
    }));
}

describe('CMX 3600 lists', () => {
  test('out and in again is the same order, lengths, joins and stretches, at every rate', () => {
    eachReel(140, (reel, rate) => {
      const back = readEdl(writeEdl(reel), 'reel.edl', rate);
      expect(back.rate).toEqual(rate);
      back.shots.forEach(({ name, frames, overlap, from, speed }, i) => {
        const wanted = expected(reel)[i]!;
        expect({ name, frames, overlap }).toEqual({
          name: wanted.name,
          frames: wanted.frames,
          overlap: wanted.overlap,
        });
        // A list has whole frames of the source, and a speed of three decimals.
        expect(Math.abs(from - wanted.from)).toBeLessThan(1.6 + frames * 0.001);
        expect(Math.abs(speed - wanted.speed)).toBeLessThan(0.001);
      });
      expect(back.shots).toHaveLength(reel.shots.length);
    });
  });

  test('by its columns: records follow each other without a gap, from the first hour to the length of the reel', () => {
    eachReel(70, (reel, rate) => {
      const frames = (code: string) => new Timecode(code, (rate.num / rate.den) as 25, isDropFrame(rate)).frameCount;
      const events = byColumns(writeEdl(reel));
      let end = frames(isDropFrame(rate) ? '01:00:00;00' : '01:00:00:00');
      const first = end;
      for (const { codes, transition } of events) {
        const [recordIn, recordOut] = [frames(codes[2]!), frames(codes[3]!)];
        expect(recordIn).toBe(end);
        end = recordOut;
        expect('CD').toContain(transition);
      }
      expect(end - first).toBe(planFrames(reel));
    });
  });

  // Timecodes by a library of others: smpte-timecode, at the rates that it knows.
  test('timecodes are those of another library', () => {
    for (const rate of RATES) {
      const perSecond = Number((rate.num / rate.den).toFixed(rate.den === 1 ? 0 : 3));
      const known = { 23.976: 23.976, 24: 24, 25: 25, 29.97: 29.97, 30: 30, 50: 50, 59.94: 59.94 }[perSecond];
      for (const frame of [0, 1799, 1800, 17_981, 17_982, 107_892, 123_456]) {
        const theirs = new Timecode(frame, known as 25, isDropFrame(rate));
        expect(timecodeOf(frame, rate).replaceAll(';', ':')).toBe(theirs.toString().replaceAll(';', ':'));
      }
    }
  });

  // In the layout in which such lists are commonly published; from memory.
  const LIST = `TITLE: CUT OF TUESDAY
FCM: NON-DROP FRAME

001  AX       V     C        00:00:00:00 00:00:04:00 01:00:00:00 01:00:04:00
* FROM CLIP NAME: DECK
002  AX       AA    C        00:00:00:00 00:00:04:00 01:00:00:00 01:00:04:00
003  AX       V     C        00:00:04:00 00:00:04:00 01:00:04:00 01:00:04:00
003  BX       V     D    025 00:00:10:00 00:00:15:00 01:00:04:00 01:00:09:00
* FROM CLIP NAME: DECK
* TO CLIP NAME: ARRIVAL
M2   BX       050.0                00:00:10:00
004  AX       V     W001 010 00:00:00:00 00:00:02:00 01:00:09:00 01:00:11:00
* FROM CLIP NAME: SCOPE
005  AX       V     C        00:00:00:99 00:00:02:00 01:00:11:00 01:00:13:00
`;
  test('a list of another program is read; what it cannot use it counts and says', () => {
    const reel = readEdl(LIST, 'tuesday.edl', { num: 25, den: 1 });
    expect(reel.name).toBe('CUT OF TUESDAY');
    expect(reel.shots).toEqual([
      { name: 'DECK', id: null, frames: 125, overlap: 0, join: null, from: 0, speed: 1 },
      { name: 'ARRIVAL', id: null, frames: 135, overlap: 25, join: 'dissolve', from: 250, speed: 2 },
      { name: 'SCOPE', id: null, frames: 50, overlap: 10, join: 'dissolve', from: 0, speed: 1 },
    ]);
    expect(reel.leftOut).toHaveLength(3);
    expect(() => readEdl('Dear all', 'letter.edl', { num: 25, den: 1 })).toThrow(FormatError);
    const drop = readEdl(LIST.replace('NON-DROP', 'DROP'), 'tuesday.edl', { num: 25, den: 1 });
    expect(drop.rate).toEqual({ num: 30_000, den: 1001 });
  });
});

describe('tables and captions', () => {
  const rate = { num: 30_000, den: 1001 };
  const shots: MadeShot[] = [
    {
      id: '1',
      body: viewShot({ seconds: 2, caption: { text: 'The hall,\n\n from the north', place: 'lower third' } }),
      source: { duration: Infinity, loops: false },
    },
    {
      id: '2',
      body: moveShot({
        join: { kind: 'dissolve', seconds: 0.5 },
        note: '=1+1',
        caption: { text: 'Deck', place: 'foot' },
      }),
      source: { duration: 8, loops: false },
    },
  ];
  const reel = sendReel(
    'Reel',
    planOf(shots, rate),
    shots.map(({ id, body }) => ({ id, body, name: id, source: 'x' })),
  );

  // By a parser of others: srt-parser-2.
  test('captions are read by another library, in time and one at a time', () => {
    const read = new Srt().fromSrt(writeSrt(reel));
    expect(read.map(({ text }) => text.replace('\r', ''))).toEqual(['The hall,\nfrom the north', 'Deck']);
    expect(read[0]!.endSeconds).toBeCloseTo(frameTime(60 - 15, rate), 2);
    expect(read[1]!.startSeconds).toBeCloseTo(frameTime(60 - 15, rate), 2);
  });

  test('a line a shot, a line a frame; cards leave their cells empty', () => {
    const cuts = writeCutsCsv(reel).split('\r\n');
    expect(cuts).toHaveLength(4);
    expect(cuts[2]).toContain("'=1+1");
    expect(cuts[2]).toContain('dissolve,15');
    const compiled = new CompiledReel(
      planOf(shots, rate),
      [
        { ...shots[0]!, camera: null },
        { ...shots[1]!, camera: straightMove() },
      ],
      {
        whole: 1.5,
        ratio: 1.5,
        alike: () => true,
      },
    );
    const lines = writeSamplesCsv(compiled).trim().split('\r\n');
    expect(lines).toHaveLength(1 + compiled.plan.frames);
    expect(lines[1]).toBe('0,00:00:00;00,,,,,,,,,,');
    expect(lines.at(-1)).toMatch(/^\d+,00:00:0\d;\d\d,0.00000,1.60000,-/);
  });

  test('a rounded rate means the exact one', () => {
    expect(rateNear(29.97)).toEqual(rate);
    expect(rateNear(23.98)).toEqual({ num: 24_000, den: 1001 });
    expect(rateNear(12.5)).toEqual({ num: 12_500, den: 1000 });
  });
});
