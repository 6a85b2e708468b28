import { toDegrees } from '../geometry/index.ts';
import type { PaceProfile } from '../pace/index.ts';
import type { PlanCurve } from '../path/index.ts';
import type { Footing } from '../survey/index.ts';
import type { Channel, ChannelCut, TrackCurve } from '../track/index.ts';
import { gazeText, paceItems } from './channel-items.ts';
import type { FloorProfile } from './floor-profile.ts';
import { LongSection } from './long-section.ts';
import { tableAt, type UniformTable } from './uniform-table.ts';
import type { SpanTimes } from './gaze-layers.ts';

/** Lifts that a hand can give, metres. */
const LIFTS = [-1.5, 20] as const;

/** Comfortable walking, m/s (common practice for walkthroughs). */
const COMFORT = [0.8, 1.4] as const;

interface ChannelledWalk {
  curve: PlanCurve;
  pace: PaceProfile;
  profile: FloorProfile;
  footing: Footing;
  /** Height of the eye by station, metres. */
  eyeLine: UniformTable;
  lift: TrackCurve | null;
  gazeSpans: readonly SpanTimes[];
  /** How fast the eye turns at a time, radians a second, and from where on that is noted, degrees a second. */
  turnRateAt(time: number): number;
  turnNote: number;
  /** When a station is passed first, seconds. */
  timeAt(station: number): number;
}

/** What a walk does over time, besides its camera: section, pace and gaze. */
export function walkChannels(walk: ChannelledWalk): Channel[] {
  const { pace, profile, eyeLine, lift, gazeSpans, turnNote } = walk;
  const cut = cutOf(walk);
  const along = (table: UniformTable) => (time: number) => tableAt(table, pace.stationAt(time));
  return [
    {
      id: 'section',
      title: 'Section',
      unit: 'm',
      at: (time) => along(eyeLine)(time) + (lift?.at(time) ?? 0),
      track: { name: 'lift', keys: lift?.keys ?? [], limits: LIFTS, step: 0.05, base: along(eyeLine) },
      under: { title: 'Floor', at: along(profile.floor) },
      get cut() {
        return cut();
      },
    },
    {
      id: 'pace',
      title: 'Pace',
      unit: 'm/s',
      at: (time) => pace.speedAt(time),
      band: COMFORT,
      items: paceItems(pace, (station) => walk.timeAt(station)),
    },
    {
      id: 'gaze',
      title: 'Gaze',
      unit: '°/s',
      at: (time) => toDegrees(walk.turnRateAt(time)),
      band: [0, turnNote],
      items: gazeSpans.map(({ id, from, to, gaze }) => {
        return { id, kind: 'gaze', from, to, value: null, about: gazeText(gaze) };
      }),
    },
  ];
}

/** What is overhead and beside, cut when first drawn; nothing where it is not known. */
function cutOf({ footing, curve, pace, profile, timeAt }: ChannelledWalk): () => ChannelCut | undefined {
  if (!footing.knowsSolids) return () => undefined;
  let made: ChannelCut | null = null;
  return () => {
    if (made) return made;
    const section = new LongSection({ curve, footing, floor: profile.floor, timeAt });
    return (made = { at: (time) => section.at(pace.stationAt(time)), tightest: section.tightest });
  };
}
