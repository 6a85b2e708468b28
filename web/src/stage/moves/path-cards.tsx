import { MOST_ROUNDING, type Path, type PathNode, type Row } from '@eskovan/core/document';
import { gazesAlong, reversedWalk, type CompiledMove } from '@eskovan/core/move';
import {
  beginningAt,
  deleteNode,
  insertNode,
  middleOf,
  mirrored,
  movedAside,
  moveNode,
  setClosed,
  setCornerRadius,
  setNodeKind,
  straightenedBetween,
  type SurfaceNear,
  turned,
} from '@eskovan/core/path';
import { toRadians } from '@eskovan/core/geometry';
import {
  CornerDownRight,
  Flag,
  Link2,
  FlipHorizontal2,
  FlipVertical2,
  Minus,
  Plus,
  RotateCcw,
  Scissors,
  Spline,
  Trash2,
} from 'lucide-react';
import { selection, useItems } from '../../desk/selection.ts';
import { Button, Card, Length, Line, NumberField } from '../../kit/index.ts';
import { useSiteData } from '../../site/use-site.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { AgainButton } from './again-dialog.tsx';
import { editShared, keepPath, keepWay, type Having } from './edit-move.ts';
import { joinWith, splitAt } from './split-join.ts';

export function PathCard({ row, body, move }: { row: Row<'move'>; body: Having<'path'>; move: CompiledMove | null }) {
  const set = (label: string, change: (path: Path) => Path) => keepPath(row, label, change);
  const { data: site } = useSiteData();
  const { ids } = useItems('node', row.id);
  // What glides keeps its own height.
  const near: SurfaceNear = (x, z, height) =>
    body.kind === 'walk' ? (site?.footing.surfaceNear(x, z, height) ?? null) : null;
  return (
    <Card title="Path" note={`${body.path.nodes.length} nodes`}>
      <Line label="Length">
        <Length metres={move?.path?.length ?? null} />
      </Line>
      <div className="grid grid-cols-2 gap-x-4">
        <NumberField
          label="Move aside"
          unit="m"
          measure="length"
          value={0}
          step={0.05}
          onChange={(way) => set('Move the path aside', (path) => movedAside(path, way, near))}
        />
        <NumberField
          label="Turn by"
          unit="°"
          value={0}
          step={1}
          digits={1}
          onChange={(angle) =>
            keepWay(row, 'Turn the path', (now) => {
              const path = turned(now.path, toRadians(angle), near);
              return gazesAlong({ ...now, path }, { about: middleOf(now.path.nodes), angle: toRadians(angle) });
            })
          }
        />
      </div>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button
          small
          icon={<FlipVertical2 size={13} />}
          disabled={body.path.nodes.length < 3}
          onClick={() => set('Mirror the path', (path) => mirrored(path, near))}
        >
          Mirror
        </Button>
        <Button
          small
          icon={<Minus size={13} />}
          disabled={ids.length < 2}
          onClick={() => set('Straighten the path', (path) => straightenedBetween(path, ids, near))}
        >
          Straighten
        </Button>
        <Button
          small
          icon={<FlipHorizontal2 size={13} />}
          onClick={() => editShared(row, 'path', 'Reverse the path', reversedWalk)}
        >
          Reverse
        </Button>
        <Button
          small
          icon={<RotateCcw size={13} />}
          pressed={body.path.closed}
          disabled={body.path.nodes.length < 3}
          onClick={() => set('Close the path', (path) => setClosed(path, !path.closed))}
        >
          Closed
        </Button>
        {body.kind === 'walk' && <JoinButton row={row} move={move} />}
        {body.kind === 'walk' && <AgainButton row={row} walk={body} move={move} />}
      </div>
    </Card>
  );
}

/** Goes on along the next walk of the list, which becomes a part of this one. */
function JoinButton({ row, move }: { row: Row<'move'>; move: CompiledMove | null }) {
  const moves = liveRows(useProject().move);
  const next = moves[moves.findIndex(({ id }) => id === row.id) + 1];
  return (
    <Button
      small
      icon={<Link2 size={13} />}
      disabled={!move || next?.body.kind !== 'walk' || next.body.path.nodes.length < 2}
      title={next ? `Go on along ${next.name}, which is below in the list` : 'There is no walk below in the list'}
      onClick={() => move && next && joinWith(row, move, next)}
    >
      Join with next
    </Button>
  );
}

interface NodeCardProps {
  row: Row<'move'>;
  body: Having<'path'>;
  move: CompiledMove | null;
  node: PathNode;
}

export function NodeCard({ row, body, move, node }: NodeCardProps) {
  const moves = liveRows(useProject().move);
  const set = (label: string, change: (path: Path) => Path) => keepPath(row, label, change);
  const { data: site } = useSiteData();
  const walks = body.kind === 'walk';
  const surfaceNear = (x: number, z: number) => (walks ? (site?.footing.surfaceNear(x, z, node.y) ?? null) : null);
  const index = body.path.nodes.findIndex((n) => n.id === node.id);
  const next = body.path.nodes[index + 1] ?? (body.path.closed ? body.path.nodes[0] : undefined);
  return (
    <Card title={`Node ${index + 1}`} note={node.kind}>
      <div className="grid grid-cols-2 gap-x-4">
        <NumberField
          label="x"
          unit="m"
          measure="length"
          value={node.x}
          step={0.1}
          onChange={(x) => set('Move a node', (path) => moveNode(path, node.id, x, node.z, surfaceNear(x, node.z)))}
        />
        <NumberField
          label="z"
          unit="m"
          measure="length"
          value={node.z}
          step={0.1}
          onChange={(z) => set('Move a node', (path) => moveNode(path, node.id, node.x, z, surfaceNear(node.x, z)))}
        />
      </div>
      <NumberField
        label={walks ? 'Floor at' : 'Height'}
        unit="m"
        measure="length"
        value={node.y}
        step={0.1}
        onChange={(y) =>
          walks
            ? set('Put a node on a floor', (path) =>
                moveNode(path, node.id, node.x, node.z, site?.footing.surfaceNear(node.x, node.z, y) ?? y),
              )
            : set('Raise a node', (path) => ({
                ...path,
                nodes: path.nodes.map((one) => (one.id === node.id ? { ...one, y } : one)),
              }))
        }
      />
      {node.kind === 'corner' && (
        <NumberField
          label="Rounding"
          unit="m"
          measure="length"
          value={node.radius}
          step={0.1}
          min={0}
          max={MOST_ROUNDING}
          onChange={(radius) => set('Round a corner', (path) => setCornerRadius(path, node.id, radius))}
        />
      )}
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button
          small
          icon={node.kind === 'corner' ? <Spline size={13} /> : <CornerDownRight size={13} />}
          onClick={() =>
            set('Corner or smooth', (path) => setNodeKind(path, node.id, node.kind === 'corner' ? 'smooth' : 'corner'))
          }
        >
          {node.kind === 'corner' ? 'Make smooth' : 'Make a corner'}
        </Button>
        <Button
          small
          icon={<Plus size={13} />}
          disabled={!next}
          onClick={() => {
            const id = crypto.randomUUID();
            set('Insert a node', (path) => {
              const [x, z] = [(node.x + next!.x) / 2, (node.z + next!.z) / 2];
              return insertNode(path, id, x, z, surfaceNear(x, z));
            });
            selection.chooseItem('node', row.id, id);
          }}
        >
          Insert after
        </Button>
        {body.path.closed && index > 0 && (
          <Button
            small
            icon={<Flag size={13} />}
            onClick={() => set('Begin the path here', (path) => beginningAt(path, node.id))}
          >
            Begin here
          </Button>
        )}
        {walks && (
          <Button
            small
            icon={<Scissors size={13} />}
            disabled={body.path.closed || index === 0 || index === body.path.nodes.length - 1}
            onClick={() => move && splitAt(row, move, node.id, moves)}
          >
            Split here
          </Button>
        )}
        <Button
          small
          tone="danger"
          icon={<Trash2 size={13} />}
          onClick={() => {
            set('Delete a node', (path) => deleteNode(path, node.id));
            selection.chooseItem('node', row.id, null);
          }}
        >
          Delete
        </Button>
      </div>
    </Card>
  );
}
