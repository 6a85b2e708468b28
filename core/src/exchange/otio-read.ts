import { z } from 'zod';
import { rateSchema, type Rate } from '../document/index.ts';
import { FormatError } from '../format/index.ts';
import { OURS } from './otio.ts';
import { rateNear } from './rates.ts';
import type { BroughtReel, BroughtShot } from './sent-reel.ts';

const finite = z.number();
const time = z.object({ rate: finite.positive().max(1000), value: finite });
const range = z.object({ start_time: time, duration: time });
const metadata = z.record(z.string(), z.unknown()).nullish();
const effect = z.looseObject({ OTIO_SCHEMA: z.string(), time_scalar: finite.optional() });
const item = z.looseObject({
  OTIO_SCHEMA: z.string(),
  name: z.string().nullish(),
  source_range: range.nullish(),
  in_offset: time.nullish(),
  out_offset: time.nullish(),
  effects: z.array(effect).nullish(),
  metadata,
  media_reference: z.looseObject({ available_range: range.nullish() }).nullish(),
});
type Item = z.infer<typeof item>;
const track = z.looseObject({
  OTIO_SCHEMA: z.string(),
  kind: z.string().nullish(),
  children: z.array(z.unknown()).max(20_000),
});
const timeline = z.looseObject({
  OTIO_SCHEMA: z.string().startsWith('Timeline.'),
  name: z.string().nullish(),
  metadata,
  tracks: z.looseObject({ children: z.array(z.unknown()).max(1000) }),
});

const ours = z.object({ shot: z.uuid(), join: z.object({ kind: z.enum(['blend', 'dissolve', 'dip']) }).optional() });
const ADVICE = 'Export the timeline again as OpenTimelineIO (.otio).';

/**
 * The shots of an OpenTimelineIO file, ours or another program's, in their order: of its first track of pictures. What
 * else stands in it is counted and said.
 * @throws FormatError for a file that is none, or has no track of pictures
 */
export function readOtio(text: string, fileName: string): BroughtReel {
  const parsed = timeline.safeParse(jsonOf(text, fileName));
  if (!parsed.success) throw new FormatError('wrong-type', fileName, 'it is no OpenTimelineIO timeline.', ADVICE);
  const { data } = parsed;
  const tracks = data.tracks.children.flatMap((child) => {
    const one = track.safeParse(child);
    return one.success && one.data.OTIO_SCHEMA.startsWith('Track.') ? [one.data] : [];
  });
  const pictures = tracks.filter(({ kind }) => kind !== 'Audio');
  const [first] = pictures;
  if (!first) throw new FormatError('wrong-type', fileName, 'it has no track of pictures.', ADVICE);
  const leftOut: string[] = [];
  if (pictures.length > 1) leftOut.push(`${pictures.length - 1} more tracks of pictures: only the first is a reel.`);
  if (tracks.length > pictures.length) leftOut.push(`${tracks.length - pictures.length} tracks of sound.`);
  const items = first.children.map((child) => item.safeParse(child));
  const bad = items.filter(({ success }) => !success).length;
  if (bad > 0) leftOut.push(`${bad} things in its track that are no clips.`);
  const clips = items.flatMap((one) => (one.success ? [one.data] : []));
  const rate = rateOf(data.metadata, clips);
  return { name: data.name ?? 'Reel', rate, shots: shotsOf(clips, rate, leftOut), leftOut };
}

function jsonOf(text: string, fileName: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new FormatError('damaged', fileName, 'it is no whole JSON.', ADVICE);
  }
}

/** Exactly where the file is ours, else the usual rate nearest to its own. */
function rateOf(meta: z.infer<typeof metadata>, clips: readonly Item[]): Rate {
  const exact = z.object({ rate: rateSchema }).safeParse(meta?.[OURS]);
  if (exact.success) return exact.data.rate;
  const named = clips.find(({ source_range }) => source_range)?.source_range?.duration.rate;
  return rateNear(named ?? 25);
}

function shotsOf(items: readonly Item[], rate: Rate, leftOut: string[]): BroughtShot[] {
  const shots: BroughtShot[] = [];
  let shared: { before: number; after: number; kind: BroughtShot['join'] } | null = null;
  let gaps = 0;
  let unmeasured = 0;
  for (const one of items) {
    if (one.OTIO_SCHEMA.startsWith('Transition.')) {
      const frames = (at: z.infer<typeof time> | null | undefined) => Math.max(0, Math.round(framesAt(at, rate)));
      shared = { before: frames(one.in_offset), after: frames(one.out_offset), kind: 'dissolve' };
      const last = shots.at(-1);
      if (last) last.frames += shared.after;
      continue;
    }
    if (!one.OTIO_SCHEMA.startsWith('Clip.')) {
      gaps += 1;
      shared = null;
      continue;
    }
    const stretch = one.source_range ?? one.media_reference?.available_range;
    if (!stretch) {
      unmeasured += 1;
      continue;
    }
    const own = ours.safeParse(one.metadata?.[OURS]);
    const speed = one.effects?.find(({ time_scalar }) => time_scalar !== undefined)?.time_scalar ?? 1;
    const skipped = shared?.before ?? 0;
    const overlap = shared ? shared.before + shared.after : 0;
    const kind = own.success ? (own.data.join?.kind ?? null) : (shared?.kind ?? null);
    shots.push({
      name: one.name ?? '',
      id: own.success ? own.data.shot : null,
      frames: Math.max(1, Math.round(framesAt(stretch.duration, rate)) + skipped),
      overlap: shots.length > 0 ? overlap : 0,
      join: shots.length > 0 ? kind : null,
      from: framesAt(stretch.start_time, rate) - skipped * speed,
      speed,
    });
    shared = null;
  }
  if (gaps > 0) leftOut.push(`${gaps} gaps or nested tracks: a reel has none.`);
  if (unmeasured > 0) leftOut.push(`${unmeasured} clips that say no length.`);
  return shots;
}

/** A time of the file in frames of the reel's rate. */
const framesAt = (at: z.infer<typeof time> | null | undefined, rate: Rate): number =>
  at ? (at.value * rate.num) / rate.den / at.rate : 0;
