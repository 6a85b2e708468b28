import type { Rate } from '../document/index.ts';
import { signedSpeed, sourceFrame, type SentReel, type SentShot } from './sent-reel.ts';

/** Under this name what is ours stands in the metadata of a file. */
export const OURS = 'eskovan';

const time = (value: number, rate: Rate) => ({
  OTIO_SCHEMA: 'RationalTime.1',
  rate: rate.num / rate.den,
  value,
});
const range = (start: number, duration: number, rate: Rate) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start, rate),
  duration: time(duration, rate),
});

/**
 * A reel as OpenTimelineIO JSON: one track of pictures, clips that name what they show, transitions over what shots share,
 * markers. Where two shots share frames, the cut lies in the middle of them, as the format has it: a transition takes its
 * pictures from what lies beyond the cut.
 * Source: the published serialized-data schema of OpenTimelineIO (Timeline.1, Track.1, Clip.1, Transition.1), from memory.
 */
export function writeOtio({ name, rate, shots, markers }: SentReel): string {
  const children = shots.flatMap((shot, i) => {
    const clip = clipOf(shot, shots[i + 1], rate);
    return shot.planned.overlap > 0 ? [transitionOf(shot, rate), clip] : [clip];
  });
  const track = {
    OTIO_SCHEMA: 'Track.1',
    name: 'Shots',
    kind: 'Video',
    children,
    effects: [],
    markers: markers.map((marker) => ({
      OTIO_SCHEMA: 'Marker.2',
      name: marker.name,
      color: 'GREEN',
      marked_range: range(Math.round((marker.time * rate.num) / rate.den), 0, rate),
      metadata: { [OURS]: { id: marker.id, time: marker.time } },
    })),
    metadata: {},
    source_range: null,
  };
  return JSON.stringify(
    {
      OTIO_SCHEMA: 'Timeline.1',
      name,
      global_start_time: time(0, rate),
      metadata: { [OURS]: { rate } },
      tracks: {
        OTIO_SCHEMA: 'Stack.1',
        name: 'tracks',
        children: [track],
        effects: [],
        markers: [],
        metadata: {},
        source_range: null,
      },
    },
    null,
    2,
  );
}

/** How many of the frames that two shots share lie before the cut in their middle. */
export const beforeCut = (overlap: number): number => Math.floor(overlap / 2);

function clipOf({ id, name, planned, body, source }: SentShot, after: SentShot | undefined, rate: Rate) {
  const { frames, overlap } = planned;
  const speed = signedSpeed(planned);
  const skipped = beforeCut(overlap);
  const given = after ? after.planned.overlap - beforeCut(after.planned.overlap) : 0;
  const from = sourceFrame(planned, rate);
  return {
    OTIO_SCHEMA: 'Clip.1',
    name,
    source_range: range(from + skipped * speed, frames - skipped - given, rate),
    media_reference: source
      ? {
          OTIO_SCHEMA: 'ExternalReference.1',
          target_url: encodeURI(source),
          available_range: null,
          metadata: {},
          name: source,
        }
      : { OTIO_SCHEMA: 'MissingReference.1', available_range: null, metadata: {}, name },
    effects:
      speed === 1
        ? []
        : [
            {
              OTIO_SCHEMA: 'LinearTimeWarp.1',
              name: 'pace',
              effect_name: 'LinearTimeWarp',
              time_scalar: speed,
              metadata: {},
            },
          ],
    markers: [],
    metadata: {
      [OURS]: {
        shot: id,
        use: body.use,
        ...(planned.join && { join: planned.join }),
        ...(body.note && { note: body.note }),
      },
    },
  };
}

function transitionOf({ planned }: SentShot, rate: Rate) {
  const { overlap, join } = planned;
  return {
    OTIO_SCHEMA: 'Transition.1',
    name: join?.kind ?? 'dissolve',
    transition_type: join?.kind === 'blend' ? 'Custom_Transition' : 'SMPTE_Dissolve',
    // The first shot goes on for `out_offset` beyond the cut; the second is there `in_offset` before it.
    in_offset: time(beforeCut(overlap), rate),
    out_offset: time(overlap - beforeCut(overlap), rate),
    metadata: { [OURS]: { join: join?.kind ?? 'dissolve' } },
  };
}
