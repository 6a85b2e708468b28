import { ownName, type Row } from '@eskovan/core/document';
import { goneOnAlong, lengthOfPoints, pathFromPoints } from '@eskovan/core/path';
import type { Footing } from '@eskovan/core/survey';
import { toast } from 'sonner';
import { workbench } from '../../desk/workbench.ts';
import { edgeOf } from '../../picture/client.ts';
import type { PickedSurface } from '../../picture/source.ts';
import { keepPath } from './edit-move.ts';

/** An edge is followed this closely, metres, and a short one to such a part of its length. */
const CLOSE = 0.03;
const PART = 0.005;

/**
 * Leads the path of a move on along the edge of what was pressed: who walks, on the floor beneath it or on it.
 * @param rise how high over the edge the camera flies, metres
 */
export async function leadAlongEdge(
  row: Row<'move'>,
  hit: PickedSurface,
  footing: Footing,
  rise: number,
): Promise<void> {
  workbench.set({ aiming: null });
  const line = await edgeOf(hit);
  if (!line || line.points.length < 2) {
    toast(`“${ownName(hit.name)}” has no edge there. Press nearer to where it ends or bends.`);
    return;
  }
  const walks = row.body.kind === 'walk';
  const length = lengthOfPoints(line.points, line.closed);
  const path = pathFromPoints(line.points, {
    closed: line.closed,
    close: Math.min(CLOSE, PART * length),
    rises: !walks,
    newId: () => crypto.randomUUID(),
    surface: (x, z, y) => (walks && y !== null ? footing.surfaceNear(x, z, y) : null),
  });
  const led = walks ? path : { ...path, nodes: path.nodes.map((node) => ({ ...node, y: node.y + rise })) };
  keepPath(row, `Along an edge of ${ownName(hit.name)}`, (now) => goneOnAlong(now, led));
}
