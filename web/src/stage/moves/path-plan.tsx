import { eyesOver, type PathNode } from '@eskovan/core/document';
import { surfaceFor, wayFindings } from '@eskovan/core/check';
import { gazesAlong, type CompiledMove } from '@eskovan/core/move';
import { appendNode, deleteNode, insertNode, moveNode, setCornerRadius, setNodeKind } from '@eskovan/core/path';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { snapPlace, type SnapPlace } from '@eskovan/core/wayfind';
import { PencilLine, Spline } from 'lucide-react';
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { itemsOf, selection, useItems } from '../../desk/selection.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button, useLengthUnit } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import { ItemMarks } from '../../plan/item-marks.tsx';
import { PathLayer } from '../../plan/path-layer.tsx';
import { Plan } from '../../plan/plan.tsx';
import type { PlanHands } from '../../plan/plan-hands.ts';
import { DrawingLine } from './drawing-line.tsx';
import { firstRounding, keepPath, keepWay, type Having } from './edit-move.ts';
import type { MovePlanProps } from './move-props.ts';
import { useMovePlan } from './use-move-plan.tsx';

/** Nodes within this of the storey belong to it; a surface within this is the one that a node was put on. Metres. */
const SAME_STOREY = 1.6;
const SAME_SURFACE = 0.1;
/** Two presses no farther from each other are one double press, metres in a building. */
const SAME_PRESS = 0.08;

/** What differs between a path that is walked and one that is flown. */
const LOOK = {
  walk: { colour: 'var(--lagoon)', hint: 'Press where the walk goes. Steps and stairs are found by themselves.' },
  glide: { colour: 'var(--slate)', hint: 'Press where the camera goes. Its height is drawn in the section below.' },
};

/** The plan with the path of the selected move on it: drawing and shaping. */
export function PathPlan({ row, body, move, site, aspect, onDraw }: MovePlanProps<Having<'path'>>) {
  const tool = useWorkbench((state) => state.tool);
  const alongEdge = useWorkbench((state) => state.aiming === 'edge');
  const chosen = useItems('node', row?.id);
  const lengths = useLengthUnit();
  const { plan, elevation, project, gazes, lineHands } = useMovePlan({ row, body, move, site, aspect });
  const [pointer, setPointer] = useState<SnapPlace | null>(null);
  const { footing } = site;
  const walks = body?.kind !== 'glide';
  const eyeHeight = body?.kind === 'walk' ? body.eyeHeight : project.body.eyeHeight;
  // On a hillside no height is a storey: what a press would put there belongs to it as well.
  const isShown = useCallback(
    ({ x, y, z }: { x: number; y: number; z: number }) =>
      // What glides belongs to no storey.
      !walks ||
      Math.abs(y - elevation) < SAME_STOREY ||
      Math.abs((footing.surfaceUnder(x, z, elevation + CUT_HEIGHT) ?? Infinity) - y) < SAME_SURFACE,
    [footing, elevation, walks],
  );
  // Where it is blocked takes a while to find: path and picture do not wait for it.
  const looked = useDeferredValue(move);
  const marked = useMemo(() => (looked ? markedStretches(looked) : ''), [looked]);
  const drawing = tool === 'draw' && row !== null && body !== null;
  const things = useParts(drawing);
  const lastPress = useRef<[number, number] | null>(null);
  const nodes = body?.path.nodes ?? [];
  const last = nodes.at(-1);
  const surfaceUnder = (x: number, z: number) =>
    surfaceFor({ x, z }, last, footing, project.body.walker, eyeHeight, elevation + CUT_HEIGHT);
  /** Where a hand over the plan is drawn to, among nodes that lead there. */
  const drawnTo = (x: number, z: number, reach: number, before: readonly PathNode[]): SnapPlace =>
    reach > 0
      ? snapPlace({
          x,
          z,
          nodes: before,
          footing,
          floor: footing.surfaceUnder(x, z, elevation + CUT_HEIGHT),
          reach,
          things,
        })
      : { x, z, snap: null };
  const stopDrawing = () => {
    lastPress.current = null;
    workbench.set({ tool: 'select', aiming: null });
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
        onPress: (px, pz, reach) => {
          const { x, z } = drawnTo(px, pz, reach, nodes);
          // The second press of a double press is not another node.
          if (
            lastPress.current &&
            Math.hypot(lastPress.current[0] - x, lastPress.current[1] - z) < SAME_PRESS * lengths.steps
          )
            return;
          lastPress.current = [x, z];
          const id = crypto.randomUUID();
          const surface = surfaceUnder(x, z);
          // A glide goes on level, until somebody raises it in the section.
          const height = walks
            ? (surface ?? elevation)
            : (last?.y ?? (surface ?? elevation) + eyesOver(site.survey.bounds, eyeHeight));
          keepPath(row, 'Add a node', (path) =>
            appendNode(path, {
              id,
              x,
              y: height,
              z,
              ...(walks && surface !== null && { surface: true }),
              kind: 'smooth',
              radius: firstRounding(site.survey.bounds),
            }),
          );
          choose(id);
          workbench.set({ time: 0, scout: null });
        },
        onDrag: () => {},
        onHover: (x, z, reach) => setPointer(drawnTo(x, z, reach, nodes)),
        onDoublePress: stopDrawing,
        from: () => (last ? [last.x, last.z] : null),
      }
    : {};

  /** Moves a node, and with it all that are chosen with it; with all of them, what they look at. */
  const onMoveNode = (id: string, px: number, pz: number, reach: number) =>
    row &&
    keepWay(row, chosen.ids.length > 1 ? `Move ${chosen.ids.length} nodes` : 'Move a node', (now) => {
      const { path } = now;
      const node = path.nodes.find((one) => one.id === id);
      if (!node) return now;
      const { ids } = itemsOf('node', row.id);
      // The legs beside it are what a node is square to; many are moved as they are.
      const index = path.nodes.indexOf(node);
      const alone = !ids.includes(id) || ids.length === 1;
      const { x, z } = drawnTo(px, pz, alone ? reach : 0, path.nodes.slice(Math.max(0, index - 2), index));
      const [dx, dz] = [x - node.x, z - node.z];
      const moved = ids.includes(id) ? path.nodes.filter((one) => ids.includes(one.id)) : [node];
      // A node stays on its own floor: the surface nearest to where it was, uphill and downhill.
      const put = moved.reduce((next, one) => {
        const [nx, nz] = [one.x + dx, one.z + dz];
        return moveNode(next, one.id, nx, nz, walks ? footing.surfaceNear(nx, nz, one.y) : null);
      }, path);
      const whole = moved.length === path.nodes.length && moved.length > 1;
      return whole ? gazesAlong({ ...now, path: put }, { dx, dz }) : { ...now, path: put };
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
      {...plan}
      hands={lineHands ?? hands}
      takesKeys={drawing || lineHands !== null}
      {...(drawing || lineHands ? { cursor: 'crosshair' } : {})}
      tools={
        <>
          <Button icon={<PencilLine size={14} />} pressed={drawing} onClick={drawing ? stopDrawing : onDraw}>
            {drawing ? 'Done drawing' : 'Draw path'}
          </Button>
          {drawing && (
            <Button
              icon={<Spline size={14} />}
              pressed={alongEdge}
              title="The path goes on along an edge or a rail of the model"
              onClick={() => workbench.set({ aiming: alongEdge ? null : 'edge', playing: false })}
            >
              Along an edge
            </Button>
          )}
          {drawing && (
            <p role="status" className="flex h-8 items-center rounded-lg bg-ink px-3 text-paper">
              {alongEdge
                ? 'Press an edge or a rail in the picture.'
                : nodes.length < 2
                  ? LOOK[body.kind].hint
                  : 'Press for more, Escape when done.'}
            </p>
          )}
        </>
      }
    >
      {move && <ItemMarks move={move} />}
      {row && body && nodes.length > 0 && (
        <PathLayer
          path={body.path}
          colour={LOOK[body.kind].colour}
          passive={drawing || lineHands !== null}
          isShown={isShown}
          marked={marked}
          selectedNodes={chosen.ids}
          onSelectNode={choose}
          onMoveNode={onMoveNode}
          onDeleteNode={onDeleteNode}
          onToggleNode={(id) => {
            const { kind } = nodes.find((n) => n.id === id)!;
            keepPath(row, 'Corner or smooth', (path) => setNodeKind(path, id, kind === 'corner' ? 'smooth' : 'corner'));
          }}
          onRadius={(id, radius) => keepPath(row, 'Round a corner', (path) => setCornerRadius(path, id, radius))}
          onPressPath={(x, z) => {
            if (!move?.path) return;
            choose(null);
            workbench.set({ time: move.path.timeAt(move.path.nearest(x, z)), playing: false, scout: null });
          }}
          onInsert={(x, z) => {
            const id = crypto.randomUUID();
            const near = move?.path?.placeAt(move.path.nearest(x, z))[1] ?? elevation;
            keepPath(row, 'Insert a node', (path) =>
              insertNode(path, id, x, z, walks ? footing.surfaceNear(x, z, near) : null),
            );
            choose(id);
          }}
        />
      )}
      {!drawing && gazes}
      {drawing && walks && pointer && (
        <DrawingLine
          last={last}
          to={{ x: pointer.x, y: surfaceUnder(pointer.x, pointer.z), z: pointer.z }}
          snap={pointer.snap}
          sofar={move?.path?.length ?? 0}
          footing={footing}
          walker={project.body.walker}
          eyeHeight={eyeHeight}
        />
      )}
    </Plan>
  );
}

/** Marks of what a walker cannot do, as SVG path data along the path. */
function markedStretches(move: CompiledMove): string {
  const { path } = move;
  if (!path) return '';
  const point = new Float64Array(2);
  return wayFindings(move)
    .map(({ from, to }) => {
      // What is met at one place still has to be seen.
      const [start, end] = [Math.max(0, from - 0.1), Math.min(path.length, to + 0.1)];
      const steps = Math.max(1, Math.ceil((end - start) / 0.2));
      return Array.from({ length: steps + 1 }, (_, i) => {
        path.pointAt(start + ((end - start) * i) / steps, point);
        return `${i === 0 ? 'M' : 'L'}${point[0]!.toFixed(3)} ${point[1]!.toFixed(3)}`;
      }).join('');
    })
    .join('');
}
