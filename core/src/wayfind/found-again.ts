import type { Anchor, GazeSpan, Path, Vec3, Walk, WayAnchor } from '../document/index.ts';
import { PlanCurve } from '../path/index.ts';
import { otherPace } from '../pace/index.ts';
import { withAnchors } from '../track/index.ts';
import type { FoundWay } from './find-way.ts';

/** A place that the way of a walk was found through, and its node. */
export interface WayPlaceOf {
  node: string;
  name: string;
  /** metres */
  at: Vec3;
}

/** The places that a walk's way was found through and that are still nodes of it, in the order in which it passes them. */
export function placesOfWay({ path, found }: Walk): WayPlaceOf[] {
  const names = new Map(found?.places.map(({ node, name }) => [node, name]));
  return path.nodes.flatMap(({ id, x, y, z }) => {
    const name = names.get(id);
    return name === undefined ? [] : [{ node: id, name, at: [x, y, z] as Vec3 }];
  });
}

/**
 * A walk along a way that was found anew through its places. Their nodes stay, with what holds on to them; what held on to
 * the way between two of them is at the same part of it again.
 * @param way through {@link placesOfWay}, in that order
 * @returns null where the walk has other places than the way by now
 */
export function foundAgain(walk: Walk, way: FoundWay): Walk | null {
  const places = placesOfWay(walk);
  if (places.length !== way.stops.length) return null;
  const ids = new Map(places.map(({ node }, i) => [way.path.nodes[way.stops[i]!]!.id, node]));
  const path: Path = {
    ...way.path,
    nodes: way.path.nodes.map((node) => ({ ...node, id: ids.get(node.id) ?? node.id })),
  };
  const moved = anchorsAlong(
    walk.path,
    path,
    places.map(({ node }) => node),
  );
  const at = <T extends { anchor: WayAnchor }>(items: readonly T[]): T[] =>
    items.map((item) => ({ ...item, anchor: moved(item.anchor) }));
  const any = (anchor: Anchor): Anchor => (anchor.by === 'time' ? anchor : moved(anchor));
  const { marks, pauses, pins } = walk.pace;
  const { gazeSpans, tracks } = walk;
  return {
    ...walk,
    path,
    pace: otherPace(walk.pace, {
      ...(marks && { marks: at(marks) }),
      ...(pauses && { pauses: at(pauses) }),
      ...(pins && { pins: at(pins) }),
    }),
    ...(gazeSpans && {
      gazeSpans: gazeSpans.map((span): GazeSpan => ({ ...span, from: any(span.from), to: any(span.to) })),
    }),
    ...(tracks && { tracks: withAnchors(tracks, any) }),
  };
}

/** Carries anchors from one path to another one that has some of its nodes. @param kept those, in order */
function anchorsAlong(before: Path, after: Path, kept: readonly string[]): (anchor: WayAnchor) => WayAnchor {
  const [old, now] = [stationsOf(before, kept), stationsOf(after, kept)];
  return (anchor) => {
    // What holds on to a node that stays, stays with it.
    if (anchor.by === 'node' && kept.includes(anchor.node)) return anchor;
    const station = anchor.by === 'station' ? anchor.station : add(old.stationOf(anchor.node), anchor.offset);
    if (station === null) return anchor;
    const leg = old.stations.findLastIndex((at) => at <= station);
    const [from, to] = [old.stations[leg] ?? 0, old.stations[leg + 1] ?? old.length];
    const [nowFrom, nowTo] = [now.stations[leg] ?? 0, now.stations[leg + 1] ?? now.length];
    const part = to > from ? (station - from) / (to - from) : 0;
    const there = nowFrom + part * (nowTo - nowFrom);
    return anchor.by === 'station' || leg < 0
      ? { by: 'station', station: there }
      : { by: 'node', node: kept[leg]!, offset: there - nowFrom };
  };
}

/** Where a path passes its nodes, and some of them in their order, metres. */
function stationsOf(path: Path, kept: readonly string[]) {
  const curve = new PlanCurve(path);
  const stationOf = (id: string) => curve.nodeStations[path.nodes.findIndex((node) => node.id === id)];
  return { stationOf, stations: kept.map((id) => stationOf(id)!), length: curve.length };
}

const add = (station: number | undefined, offset: number): number | null =>
  station === undefined ? null : station + offset;
