import { openFor, planBoxOfPart } from '@eskovan/core/action';
import type { Finding } from '@eskovan/core/check';
import { isWithin, ownName, type Vec3 } from '@eskovan/core/document';
import { distanceToPlanBox } from '@eskovan/core/geometry';
import type { MovePath } from '@eskovan/core/move';
import { isDoorLeaf, type Footing } from '@eskovan/core/survey';
import { liveRows } from '../../data/changes.ts';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Button } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { useSiteData } from '../../site/use-site.ts';
import type { PartInfo } from '../../worker/parts.ts';
import { makeAction } from '../shared/make-action.ts';

/** A leaf that was met is so near to where it was met, metres. */
const MET = 0.05;
/** The way to a door is where one comes from so far before it, metres. */
const BEFORE = 0.3;

interface OpenDoorProps {
  /** A closed door. */
  finding: Finding;
  path: MovePath;
}

/** Lets the leaf that a walk meets open in time; an action that opens it already begins earlier. */
export function OpenDoor({ finding, path }: OpenDoorProps) {
  const document = useProject();
  const parts = useParts();
  const footing = useSiteData().data?.footing;
  const leaf = finding.point && leafAt(parts, finding.point);
  if (!leaf || !footing) return null;
  const own = ownName(leaf.name);
  const before = liveRows(document.action).find(
    ({ body }) => body.kind === 'hinge' && body.model === leaf.model && isWithin(leaf.name, body.part),
  );
  // It opens already, and is in the way none the less.
  if (before?.body.kind === 'hinge' && !before.body.off && before.body.start + before.body.seconds <= finding.from)
    return null;
  const open = () => {
    const coming = { time: finding.from, way: wayAt(path, finding.from), at: finding.point! };
    const opening = openFor(leaf, coming, roomIn(footing));
    if (!before) makeAction(document, `Open ${own}`, own, opening);
    else
      editBody('action', before, `Open ${own} in time`, ({ off: _, ...body }) => ({
        ...body,
        start: Math.min(body.start, opening.start),
        ...(body.kind === 'hinge' && { seconds: opening.seconds }),
      }));
  };
  return (
    <Button small aria-label={`Open ${own} in time`} title="Opens it just before one is there" onClick={open}>
      Open it
    </Button>
  );
}

/** The smallest leaf at a place. */
function leafAt(parts: readonly PartInfo[], at: Vec3): PartInfo | null {
  const size = ({ bounds: { min, max } }: PartInfo) =>
    max.reduce((product, value, k) => product * (value - min[k]!), 1);
  const [leaf] = parts
    .filter(({ name, role }) => isDoorLeaf({ name, ...(role === 'door' && { role }) }))
    .filter((part) => distanceToPlanBox(planBoxOfPart(part), at) < MET)
    .sort((a, b) => size(a) - size(b));
  return leaf ?? null;
}

function wayAt(path: MovePath, time: number): [number, number] {
  const [from, to] = [new Float64Array(2), new Float64Array(2)];
  const station = path.stationAt(time);
  path.pointAt(Math.max(0, station - BEFORE), from);
  path.pointAt(station, to);
  return [to[0]! - from[0]!, to[1]! - from[1]!];
}

const roomIn = (footing: Footing) => (from: Vec3, direction: Vec3, most: number) =>
  footing.solids.first(from, direction, most)?.distance ?? most;
