import type { MoveBody, Row } from '@eskovan/core/document';
import type { CompiledWalk } from '@eskovan/core/move';
import { appendNode, deleteNode, insertNode, moveNode, setNodeKind } from '@eskovan/core/path';
import { PencilLine } from 'lucide-react';
import { useRef, useState } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { itemsOf, selection, useItems } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { useProject } from '../../data/use-project.ts';
import type { SiteData } from '../../site/use-site.ts';
import { Button } from '../../kit/index.ts';
import { MovingCamera } from '../../plan/camera-mark.tsx';
import { PathLayer } from '../../plan/path-layer.tsx';
import { Plan } from '../../plan/plan.tsx';
import type { PlanHands } from '../../plan/plan-hands.ts';
import { keepPath } from './edit-walk.ts';
import { useMoveSample } from './move-sample.ts';
import { useShownMove } from './show-move.ts';
import { useStorey } from '../shared/use-storey.ts';

interface WalkPlanProps {
  row: Row<'move'> | null;
  body: MoveBody | null;
  walk: CompiledWalk | null;
  site: SiteData;
  aspect: number;
  onDraw: () => void;
}

/** The plan with the path of the selected walk on it: drawing and shaping. */
export function WalkPlan({ row, body, walk, site, aspect, onDraw }: WalkPlanProps) {
  const tool = useWorkbench((state) => state.tool);
  const chosen = useItems('node', row?.id);
  const [storey, setStorey] = useStorey(site.survey);
  const focus = useShownMove(row, site.survey);
  const [pointer, setPointer] = useState<[number, number] | null>(null);
  const elevation = site.survey.storeys[storey]?.elevation ?? 0;
  const drawing = tool === 'draw' && row !== null && body !== null;
  const lastPress = useRef<[number, number] | null>(null);
  const nodes = body?.path.nodes ?? [];
  const last = nodes.at(-1);
  const stopDrawing = () => {
    lastPress.current = null;
    workbench.set({ tool: 'select' });
    setPointer(null);
  };
  const choose = (id: string | null, how: Parameters<typeof selection.chooseItem>[3] = 'only') =>
    row &&
    selection.chooseItem(
      'node',
      row.id,
      id,
      how,
      nodes.map((node) => node.id),
    );

  const command = { group: 'Path' };
  useCommands([
    {
      ...command,
      id: 'path.draw',
      label: drawing ? 'Done drawing' : 'Draw the path',
      keys: 'p',
      run: drawing ? stopDrawing : onDraw,
    },
    // Enter presses at the plan's cursor where there is one: then it never comes here.
    {
      ...command,
      id: 'path.done',
      label: 'End drawing',
      keys: 'Enter Escape',
      hidden: true,
      when: () => drawing,
      run: stopDrawing,
    },
    {
      ...command,
      id: 'path.all',
      label: 'Choose all nodes',
      keys: '$mod+a',
      when: () => nodes.length > 0,
      run: () => nodes.forEach(({ id }, i) => choose(id, i === 0 ? 'only' : 'toggle')),
    },
  ]);

  const hands: PlanHands = drawing
    ? {
        onPress: (x, z) => {
          // The second press of a double press is not another node.
          if (lastPress.current && Math.hypot(lastPress.current[0] - x, lastPress.current[1] - z) < 0.08) return;
          lastPress.current = [x, z];
          const id = crypto.randomUUID();
          keepPath(row, 'Add a node', (path) =>
            appendNode(path, { id, x, y: elevation, z, kind: 'smooth', radius: 0.5 }),
          );
          choose(id);
          workbench.set({ time: 0, scout: null });
        },
        onDrag: () => {},
        onHover: (x, z) => setPointer([x, z]),
        onDoublePress: stopDrawing,
        from: () => (last ? [last.x, last.z] : null),
      }
    : {};

  /** Moves a node, and with it all that are chosen with it. */
  const onMoveNode = (id: string, x: number, z: number) =>
    row &&
    keepPath(row, chosen.ids.length > 1 ? `Move ${chosen.ids.length} nodes` : 'Move a node', (path) => {
      const node = path.nodes.find((one) => one.id === id);
      if (!node) return path;
      const [dx, dz] = [x - node.x, z - node.z];
      const { ids } = itemsOf('node', row.id);
      const moved = ids.includes(id) ? path.nodes.filter((one) => ids.includes(one.id)) : [node];
      return moved.reduce((next, one) => moveNode(next, one.id, one.x + dx, one.z + dz), path);
    });
  const onDeleteNode = (id: string) => {
    if (!row) return;
    const gone = chosen.ids.includes(id) ? chosen.ids : [id];
    keepPath(row, gone.length > 1 ? `Delete ${gone.length} nodes` : 'Delete a node', (path) =>
      gone.reduce(deleteNode, path),
    );
    choose(null);
  };

  return (
    <Plan
      survey={site.survey}
      north={useProject().project.body.sun.north}
      storey={storey}
      onStorey={setStorey}
      hands={hands}
      label="Plan"
      focus={focus}
      takesKeys={drawing}
      movers={<WalkingCamera walk={walk} body={body} aspect={aspect} />}
      {...(drawing ? { cursor: 'crosshair' } : {})}
      tools={
        <>
          <Button icon={<PencilLine size={14} />} pressed={drawing} onClick={drawing ? stopDrawing : onDraw}>
            {drawing ? 'Done drawing' : 'Draw path'}
          </Button>
          {drawing && (
            <p role="status" className="flex h-8 items-center rounded-lg bg-ink px-3 text-paper">
              {nodes.length < 2
                ? 'Press where the walk goes. Steps and stairs are found by themselves.'
                : 'Press for more, Escape when done.'}
            </p>
          )}
        </>
      }
    >
      {row && body && nodes.length > 0 && (
        <PathLayer
          walk={body}
          passive={drawing}
          elevation={elevation}
          selectedNodes={chosen.ids}
          onSelectNode={choose}
          onMoveNode={onMoveNode}
          onDeleteNode={onDeleteNode}
          onToggleNode={(id) => {
            const { kind } = nodes.find((n) => n.id === id)!;
            keepPath(row, 'Corner or smooth', (path) => setNodeKind(path, id, kind === 'corner' ? 'smooth' : 'corner'));
          }}
          onPressPath={(x, z) => {
            if (!walk) return;
            const { station } = walk.curve.nearest(x, z);
            choose(null);
            workbench.set({ time: timeAtStation(walk, station), playing: false, scout: null });
          }}
          onInsert={(x, z) => {
            const id = crypto.randomUUID();
            keepPath(row, 'Insert a node', (path) => insertNode(path, id, x, z));
            choose(id);
          }}
        />
      )}
      {drawing && last && pointer && (
        <line
          x1={last.x}
          y1={last.z}
          x2={pointer[0]}
          y2={pointer[1]}
          stroke="var(--lagoon)"
          strokeWidth={1.5}
          strokeDasharray="4 4"
          vectorEffect="non-scaling-stroke"
          pointerEvents="none"
        />
      )}
    </Plan>
  );
}

/** The camera on the plan, following the time. */
function WalkingCamera({ walk, body, aspect }: { walk: CompiledWalk | null; body: MoveBody | null; aspect: number }) {
  const sample = useMoveSample(walk, body);
  return sample && <MovingCamera sample={sample} aspect={aspect} />;
}

/** When the walker passes a station: the pace never runs backward, so halving finds it. */
function timeAtStation(walk: CompiledWalk, station: number): number {
  let [low, high] = [0, walk.duration];
  for (let i = 0; i < 50; i += 1) {
    const middle = (low + high) / 2;
    if (walk.pace.stationAt(middle) < station) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
