import { PACE_LIMITS, type Anchor, type Gaze, type Glide, type Walk, type WayAnchor } from '../document/index.ts';
import { paceProfile } from '../pace/index.ts';
import { PlanCurve, reversePath, SpaceWay } from '../path/index.ts';
import { stationOf, withAnchors } from '../track/index.ts';

/**
 * A walk or a glide the other way: its pauses, marks, pins, gazes and keys stay at their places of the path; what is held by a time
 * stays at its time. Reversed twice it is what it was.
 */
export function reversedWalk<M extends Walk | Glide>(walk: M): M {
  const { path, pace, gazeSpans, tracks } = walk;
  const reversed = reversePath(path);
  if (path.nodes.length < 2) return { ...walk, path: reversed };
  const curve = new PlanCurve(path);
  const way = walk.kind === 'glide' && curve.length > 0 ? new SpaceWay(path, curve) : null;
  const length = way?.length ?? curve.length;
  const back = (anchor: WayAnchor): WayAnchor => {
    if (anchor.by === 'node') return { ...anchor, offset: -anchor.offset };
    return { by: 'station', station: Math.max(0, length - anchor.station) };
  };
  const held = (anchor: Anchor): Anchor => (anchor.by === 'time' ? anchor : back(anchor));
  const place = <T extends { anchor: WayAnchor }>(items: readonly T[]): T[] =>
    items.map((item) => ({ ...item, anchor: back(item.anchor) }));
  const { marks, pauses, pins, carry, kept } = pace;
  const nodeAt = (id: string) => {
    const index = path.nodes.findIndex((node) => node.id === id);
    return way ? way.stationOfNode(index) : (curve.nodeStations[index] ?? null);
  };
  const duration =
    pins && length > 0
      ? paceProfile(pace, { length, stationOf: (anchor) => stationOf(anchor, nodeAt) }).duration
      : pace.duration;
  return {
    ...walk,
    path: reversed,
    gaze: gazeBack(walk.gaze),
    pace: {
      ...pace,
      shape: OTHER_WAY[pace.shape] ?? pace.shape,
      ...(carry && { carry: { ...carry, at: 1 - carry.at } }),
      ...(kept && { kept: kept.map((part) => 1 - part).reverse() }),
      ...(marks && { marks: place(marks) }),
      ...(pauses && { pauses: place(pauses) }),
      ...(pins && {
        pins: place(pins).map((pin) => ({ ...pin, time: Math.max(PACE_LIMITS.pin[0], duration - pin.time) })),
      }),
    },
    ...(gazeSpans && {
      gazeSpans: gazeSpans.map((span) =>
        span.from.by === 'time' || span.to.by === 'time'
          ? { ...span, from: held(span.from), to: held(span.to) }
          : { ...span, gaze: gazeBack(span.gaze), from: back(span.to), to: back(span.from) },
      ),
    }),
    ...(tracks && { tracks: withAnchors(tracks, held) }),
  };
}

/** What was looked at first is looked at last. */
function gazeBack(gaze: Gaze): Gaze {
  if (gaze.kind === 'line') return { ...gaze, path: { ...gaze.path, nodes: reversePath(gaze.path).nodes } };
  if (gaze.kind !== 'recorded') return gaze;
  return { ...gaze, looks: gaze.looks.map((look) => ({ ...look, at: 1 - look.at })).reverse() };
}

const OTHER_WAY: Partial<Record<Walk['pace']['shape'], Walk['pace']['shape']>> = {
  'ease out of rest': 'ease to rest',
  'ease to rest': 'ease out of rest',
};
