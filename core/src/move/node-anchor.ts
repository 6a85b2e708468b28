import type { PathNode, WayAnchor } from '../document/index.ts';

/** What holds on to a station when the path is changed: the node before it. @param stationOf of a node by its index, metres */
export function nodeAnchor(
  nodes: readonly PathNode[],
  stationOf: (index: number) => number,
  station: number,
): WayAnchor {
  let [before, from] = [-1, -Infinity];
  nodes.forEach((_, i) => {
    const at = stationOf(i);
    if (at <= station && at > from) [before, from] = [i, at];
  });
  const node = nodes[before];
  return node
    ? { by: 'node', node: node.id, offset: station - from }
    : { by: 'station', station: Math.max(0, station) };
}
