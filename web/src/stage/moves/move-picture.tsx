import { aspectOf, DEFAULT_LENS, eyesOver, type Bounds, type MoveBody, type Row } from '@eskovan/core/document';
import { Companion, standing, type CameraSample, type CompiledMove } from '@eskovan/core/move';
import { firstLook } from '@eskovan/core/site';
import type { Footing } from '@eskovan/core/survey';
import { useMemo } from 'react';
import { toast } from 'sonner';
import { useProject } from '../../data/use-project.ts';
import { useLengthUnit } from '../../kit/index.ts';
import { useParts, useSiteMotion } from '../../site/use-parts.ts';
import { useRecording } from '../../desk/recording.ts';
import { useWorkbench, workbench, type Aim } from '../../desk/workbench.ts';
import type { Ground } from '../../picture/eye.ts';
import { PicturePane } from '../../picture/picture-pane.tsx';
import type { PickedSurface } from '../../picture/source.ts';
import { ScoutBar } from '../../picture/scout-bar.tsx';
import { unkeptActions } from './unkept-actions.ts';
import { leadAlongEdge } from './edge-path.ts';
import { addToGazeLine } from './gaze-line.ts';
import { kindOf } from './kinds.tsx';
import { dropRecording, simulate } from './live-walk.ts';
import { RecordingBar } from './recording-bar.tsx';
import { useExtent } from '../shared/use-extent.ts';
import { useMoveSample } from './move-sample.ts';

interface MovePictureProps {
  row: Row<'move'> | null;
  body: MoveBody | null;
  move: CompiledMove | null;
  ground: Ground | null;
  footing: Footing;
  onKeep: () => void;
  /** Keeps the live walk that is recorded. */
  onRecorded: () => void;
}

/** What is asked for whatever the kind of move. */
const HINTS: Partial<Record<Aim, string>> = {
  line: 'Press what the eye goes along',
  edge: 'Press an edge or a rail',
};

/** The picture of the selected move, following the time. */
export function MovePicture({ row, body, move, ground, footing, onKeep, onRecorded }: MovePictureProps) {
  const { project } = useProject();
  const lengths = useLengthUnit();
  const { rate } = project.body;
  const moved = useMoveSample(move, body, rate);
  const extent = useExtent();
  const whole = useWholeSite(extent);
  // Before it has a way, one looks about for where it is to lead.
  const begins = body === null || ('path' in body && body.path.nodes.length < 2);
  const sample = moved ?? (begins ? whole : null);
  const scout = useWorkbench((state) => state.scout);
  const aiming = useWorkbench((state) => state.aiming);
  const recording = useRecording((state) => state.slowed);
  const device = useRecording((state) => state.device);
  const onPath = () => move?.sampleAt(Math.min(workbench.get().time, move.duration)) ?? null;
  const wanted = useWorkbench((state) => state.company);
  const company = useMemo(() => {
    const walking = wanted && move ? Companion.of(move, footing) : null;
    return walking && ((time: number) => walking.at(time));
  }, [wanted, move, footing]);
  const film = useMemo(() => move && { rate }, [move, rate]);
  const kind = kindOf(body);
  // Only a ride asks what moves.
  const rides = body?.kind === 'ride';
  const parts = useParts(rides);
  const motion = useSiteMotion(rides);
  const carriers = { parts, motion };
  const from = scout ? onPath() : null;
  const hands = body &&
    sample && {
      eye: () => workbench.get().scout ?? onPath() ?? (begins ? whole : null),
      onMove: (pose: NonNullable<typeof scout>) => workbench.set({ scout: pose, playing: false }),
      lens: body.lens,
      ground,
      eyeHeight: kind.eyeHeight(body) ?? project.body.eyeHeight,
      tempo: recording ?? 1,
      device,
      ...(aiming && row
        ? {
            onPress: (hit: PickedSurface | null) => {
              if (!hit) toast('There is nothing there: only sky.');
              else if (aiming === 'line') addToGazeLine(row, move, hit.point);
              else if (aiming === 'edge') {
                const rise = extent ? eyesOver(extent, project.body.eyeHeight) : 0;
                void leadAlongEdge(row, hit, footing, rise);
              } else kind.aim(row, hit, move, carriers);
            },
          }
        : {}),
    };
  return (
    <PicturePane label="Picture" {...{ sample, company, film }} {...(hands ? { hands } : {})}>
      <RecordingBar onKeep={onRecorded} onDrop={dropRecording} onSimulate={simulate} />
      {scout && from && recording === null && (
        <ScoutBar
          from={from}
          scout={scout}
          name={row?.name ?? ''}
          onBack={() => workbench.set({ scout: null })}
          onKeep={onKeep}
          also={row && move && body ? unkeptActions(row, body, move, lengths) : []}
        />
      )}
      {aiming && (
        <p className="pointer-events-none absolute inset-x-0 top-3 text-center">
          <span className="rounded bg-surround px-2 py-1 text-surround-ink">
            {HINTS[aiming] ?? kind.aimHint(aiming)}
          </span>
        </p>
      )}
      {!moved && !aiming && (
        <p className="pointer-events-none absolute inset-x-0 bottom-3 text-center">
          <span className="rounded bg-surround px-2 py-1 text-surround-ink">
            Press two places on the plan to begin.
          </span>
        </p>
      )}
    </PicturePane>
  );
}

/** All of it from a good side, until there is a move. */
function useWholeSite(extent: Bounds | null): CameraSample | null {
  const { project } = useProject();
  const aspect = aspectOf(project.body);
  return useMemo(() => extent && standing(firstLook(extent, aspect), DEFAULT_LENS), [extent, aspect]);
}
