import type { PaceShape, Path, PathNode, Row, Walk } from '@eskovan/core/document';
import type { CompiledWalk } from '@eskovan/core/move';
import { deleteNode, insertNode, moveNode, reversePath, setClosed, setNodeKind } from '@eskovan/core/path';
import {
  CircleAlert,
  CircleCheck,
  CornerDownRight,
  FlipHorizontal2,
  Plus,
  RotateCcw,
  Spline,
  Trash2,
} from 'lucide-react';
import { memo } from 'react';
import { useWorkbench, workbench } from '../../app/workbench.ts';
import { Button, Card, Line, NumberField, Segmented, Select, Value } from '../../kit/index.ts';
import { EyeLensCard } from '../shared/eye-lens-card.tsx';
import { keepPath, keepWalk } from './edit-walk.ts';
import { GazeCard } from './gaze-card.tsx';

const SHAPES: readonly { value: PaceShape; label: string }[] = [
  { value: 'soft', label: 'Soft start and stop' },
  { value: 'constant', label: 'Constant' },
  { value: 'ease both', label: 'Ease both' },
];

interface WalkCardsProps {
  row: Row<'move'>;
  body: Walk;
  walk: CompiledWalk | null;
  aspect: number;
  frames: number;
}

/** What the selected walk is made of, in numbers. */
export const WalkCards = memo(function WalkCards({ row, body, walk, aspect, frames }: WalkCardsProps) {
  const nodeId = useWorkbench((state) => state.nodeId);
  const node = body.path.nodes.find((n) => n.id === nodeId);
  return (
    <div className="grid gap-2.5 p-3">
      {walk && <ChecksCard walk={walk} />}
      {node && <NodeCard row={row} body={body} node={node} />}
      <EyeLensCard
        eyeHeight={body.eyeHeight}
        onEyeHeight={(eyeHeight) => keepWalk(row, 'Eye height', (now) => ({ ...now, eyeHeight }))}
        lens={body.lens}
        onLens={(lens) => keepWalk(row, 'Lens', (now) => ({ ...now, lens }))}
        aspect={aspect}
      />
      <PaceCard row={row} body={body} walk={walk} frames={frames} />
      <GazeCard row={row} body={body} />
      <PathCard row={row} body={body} walk={walk} />
    </div>
  );
});

function ChecksCard({ walk }: { walk: CompiledWalk }) {
  const { gaps } = walk.profile;
  const speed = walk.pace.cruise;
  const findings = [
    ...gaps.map((gap) => ({
      key: `gap-${gap.from}`,
      text: `No floor under the path from ${gap.from.toFixed(1)} to ${gap.to.toFixed(1)} m. The eye keeps its height there; lead the path over a floor.`,
    })),
    ...(speed > 1.45
      ? [
          {
            key: 'haste',
            text: `${speed.toFixed(2)} m/s is faster than people walk (0.8 to 1.4 m/s). Give the walk more time.`,
          },
        ]
      : []),
  ];
  return (
    <Card title="Checks" note={findings.length === 0 ? 'fine' : `${findings.length} to look at`}>
      <ul className="grid gap-1.5">
        {findings.length === 0 && (
          <li className="flex gap-2">
            <CircleCheck size={15} className="mt-0.5 shrink-0 text-moss" aria-hidden />
            There is floor all the way, and the pace is a walk.
          </li>
        )}
        {findings.map((finding) => (
          <li key={finding.key} className="flex gap-2">
            <CircleAlert size={15} className="mt-0.5 shrink-0 text-madder" aria-hidden />
            {finding.text}
          </li>
        ))}
      </ul>
    </Card>
  );
}

function PaceCard({ row, body, walk, frames }: Omit<WalkCardsProps, 'aspect'>) {
  const { pace } = body;
  const set = (change: Partial<Walk['pace']>) =>
    keepWalk(row, 'Pace', (now) => ({ ...now, pace: { ...now.pace, ...change } }));
  return (
    <Card
      title="Pace"
      note={
        <Segmented
          label="What leads"
          value={pace.by}
          options={[
            { value: 'speed', label: 'By speed' },
            { value: 'duration', label: 'By time' },
          ]}
          onChange={(by) =>
            // What was a result becomes the wish: nothing jumps.
            set({
              by,
              ...(walk
                ? {
                    speed: Math.max(0.05, Number(walk.pace.cruise.toFixed(3))),
                    duration: Math.max(0.1, Number(walk.duration.toFixed(3))),
                  }
                : {}),
            })
          }
        />
      }
    >
      {pace.by === 'speed' ? (
        <>
          <NumberField
            label="Walking speed"
            unit="m/s"
            measure="speed"
            value={pace.speed}
            step={0.05}
            min={0.05}
            max={50}
            onChange={(speed) => set({ speed })}
          />
          <Line label="Takes">
            <Value unit="s">{walk ? walk.duration.toFixed(2) : '–'}</Value>
          </Line>
        </>
      ) : (
        <>
          <NumberField
            label="Takes"
            unit="s"
            measure="time"
            frames={frames}
            value={pace.duration}
            step={0.5}
            min={0.1}
            max={3600}
            onChange={(duration) => set({ duration })}
          />
          <Line label="Walking speed">
            <Value unit="m/s">{walk ? walk.pace.cruise.toFixed(2) : '–'}</Value>
          </Line>
        </>
      )}
      <Line label="Shape">
        <Select label="Shape of the pace" value={pace.shape} options={SHAPES} onChange={(shape) => set({ shape })} />
      </Line>
    </Card>
  );
}

function PathCard({ row, body, walk }: { row: Row<'move'>; body: Walk; walk: CompiledWalk | null }) {
  const set = (label: string, change: (path: Path) => Path) => keepPath(row, label, change);
  return (
    <Card title="Path" note={`${body.path.nodes.length} nodes`}>
      <Line label="Length">
        <Value unit="m">{walk ? walk.curve.length.toFixed(2) : '–'}</Value>
      </Line>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button small icon={<FlipHorizontal2 size={13} />} onClick={() => set('Reverse the path', reversePath)}>
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
      </div>
    </Card>
  );
}

function NodeCard({ row, body, node }: { row: Row<'move'>; body: Walk; node: PathNode }) {
  const set = (label: string, change: (path: Path) => Path) => keepPath(row, label, change);
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
          onChange={(x) => set('Move a node', (path) => moveNode(path, node.id, x, node.z))}
        />
        <NumberField
          label="z"
          unit="m"
          measure="length"
          value={node.z}
          step={0.1}
          onChange={(z) => set('Move a node', (path) => moveNode(path, node.id, node.x, z))}
        />
      </div>
      {node.kind === 'corner' && (
        <NumberField
          label="Rounding"
          unit="m"
          measure="length"
          value={node.radius}
          step={0.1}
          min={0}
          max={100}
          onChange={(radius) =>
            set('Round a corner', (path) => ({
              ...path,
              nodes: path.nodes.map((n) => (n.id === node.id ? { ...n, radius } : n)),
            }))
          }
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
            set('Insert a node', (path) => insertNode(path, id, (node.x + next!.x) / 2, (node.z + next!.z) / 2));
            workbench.set({ nodeId: id });
          }}
        >
          Insert after
        </Button>
        <Button
          small
          tone="danger"
          icon={<Trash2 size={13} />}
          onClick={() => {
            set('Delete a node', (path) => deleteNode(path, node.id));
            workbench.set({ nodeId: null });
          }}
        >
          Delete
        </Button>
      </div>
    </Card>
  );
}
