import type { MoveBody, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { useProject } from '../../data/use-project.ts';
import type { SiteData } from '../../site/use-site.ts';
import { useStorey } from '../shared/use-storey.ts';
import { useGazeLineHands } from './gaze-line.ts';
import { GazePoints } from './gaze-points.tsx';
import { PlanCamera } from './plan-camera.tsx';
import { useShownMove } from './show-move.ts';

interface PlannedMove {
  row: Row<'move'> | null;
  body: MoveBody | null;
  move: CompiledMove | null;
  site: SiteData;
  aspect: number;
}

/** The plan of a move, whatever its kind: its storey, where it looks, and its camera on it. */
export function useMovePlan({ row, body, move, site, aspect }: PlannedMove) {
  const [storey, onStorey] = useStorey(site.survey);
  const focus = useShownMove(row, move, site.survey);
  const { project } = useProject();
  const elevation = site.survey.storeys[storey]?.elevation ?? 0;
  const { eyeHeight } = project.body;
  return {
    /** Height of the storey that is shown, metres. */
    elevation,
    project,
    /** What draws a line for the eye, while one is drawn. */
    lineHands: useGazeLineHands({ row, body, move, site, elevation, eyeHeight }),
    /** What it looks at, for the layers of the plan. */
    gazes: <GazePoints row={row} body={body} />,
    plan: {
      ...{ storey, onStorey, focus },
      survey: site.survey,
      north: project.body.sun.north,
      label: 'Plan',
      movers: <PlanCamera move={move} body={body} aspect={aspect} />,
    },
  };
}
