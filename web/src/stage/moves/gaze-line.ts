import type { Gaze, GazeAlongLine, GazeSpan, MoveBody, PathNode, Row, Vec3 } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { currentRow } from '../../data/edits.ts';
import { useCommands } from '../../desk/commands.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import type { PlanHands } from '../../plan/plan-hands.ts';
import type { SiteData } from '../../site/use-site.ts';
import { addGazeSpan } from './edit-items.ts';
import { editShared } from './edit-move.ts';

/** A second press so near to the one before is that of a double press, metres. */
const SAME_PLACE = 0.08;

/** Presses in plan and picture draw a line for the eye from now on: for all of the move, or for a while from its time on. */
export const drawGazeLine = (forAWhile: boolean): void =>
  workbench.set({
    aiming: 'line',
    forAWhile: false,
    playing: false,
    scout: null,
    gazeLine: { span: forAWhile ? crypto.randomUUID() : null, begun: false },
  });

const stopDrawing = () => workbench.set({ aiming: null });

const nodeAt = ([x, y, z]: Vec3): PathNode => ({ id: crypto.randomUUID(), x, y, z, kind: 'smooth', radius: 0.5 });

/** The line that is drawn goes on to a place, metres. */
export function addToGazeLine(row: Row<'move'>, move: CompiledMove | null, place: Vec3): void {
  const { gazeLine, time } = workbench.get();
  if (!gazeLine || !('gaze' in row.body)) return;
  const node = nodeAt(place);
  const first: GazeAlongLine = { kind: 'line', path: { nodes: [node], closed: false } };
  const longer = (gaze: Gaze): Gaze =>
    gaze.kind === 'line' && gazeLine.begun
      ? { ...gaze, path: { ...gaze.path, nodes: [...gaze.path.nodes, node] } }
      : first;
  if (gazeLine.span === null)
    editShared(row, 'gaze', 'Draw a line for the eye', (now) => ({ ...now, gaze: longer(now.gaze) }));
  else if (hasSpan(row, gazeLine.span)) editGazeOf(row, gazeLine.span, 'Draw a line for the eye', longer);
  else if (move) addGazeSpan(row, move, Math.min(time, move.duration), first, gazeLine.span);
  workbench.set({ gazeLine: { ...gazeLine, begun: true } });
}

/** Is a span there at this instant? Its first press may have been undone. */
function hasSpan({ projectId, id }: Row<'move'>, span: string): boolean {
  const now = currentRow(projectId, 'move', id)?.body;
  return now !== undefined && 'gaze' in now && (now.gazeSpans ?? []).some((one) => one.id === span);
}

/** Changes the gaze of a span, or of the whole move (`null`). */
export const editGazeOf = (row: Row<'move'>, span: string | null, label: string, change: (gaze: Gaze) => Gaze): void =>
  editShared(row, 'gaze', label, (now) =>
    span === null
      ? { ...now, gaze: change(now.gaze) }
      : {
          ...now,
          gazeSpans: (now.gazeSpans ?? []).map((one: GazeSpan) =>
            one.id === span ? { ...one, gaze: change(one.gaze) } : one,
          ),
        },
  );

interface Drawn {
  row: Row<'move'> | null;
  body: MoveBody | null;
  move: CompiledMove | null;
  site: SiteData;
  /** Of the storey that is shown, metres. */
  elevation: number;
  /** Of who walks about, metres. */
  eyeHeight: number;
}

/**
 * Hands that draw a line for the eye on the plan; null while none is drawn. It begins as high as the eye is: over the
 * floor there for who walks, else where the camera is; and goes on so.
 */
export function useGazeLineHands({ row, body, move, site, elevation, eyeHeight }: Drawn): PlanHands | null {
  const drawing = useWorkbench((state) => state.aiming === 'line') && row !== null;
  useCommands([
    {
      id: 'gaze.line.done',
      label: 'End the line',
      group: 'Picture',
      keys: 'Enter Escape',
      hidden: true,
      when: () => drawing,
      run: stopDrawing,
    },
  ]);
  if (!drawing || !body || !('gaze' in body)) return null;
  const { gazeLine, time } = workbench.get();
  const gaze = gazeLine?.span ? body.gazeSpans?.find(({ id }) => id === gazeLine.span)?.gaze : body.gaze;
  const last = gaze?.kind === 'line' && gazeLine?.begun ? gaze.path.nodes.at(-1)! : null;
  const heightAt = (x: number, z: number): number => {
    const floor = site.footing.surfaceUnder(x, z, elevation + CUT_HEIGHT) ?? elevation;
    if (body.kind === 'walk') return floor + body.eyeHeight;
    return last?.y ?? move?.sampleAt(Math.min(time, move.duration)).position[1] ?? floor + eyeHeight;
  };
  return {
    onPress: (x, z) => {
      if (last && Math.hypot(last.x - x, last.z - z) < SAME_PLACE) return;
      addToGazeLine(row, move, [x, heightAt(x, z), z]);
    },
    onDoublePress: stopDrawing,
    from: () => (last ? [last.x, last.z] : null),
  };
}
