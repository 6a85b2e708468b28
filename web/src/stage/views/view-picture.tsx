import { aspectOf, frameOf, type Pose, type Row, type Vec3 } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { Projection, throughLens } from '@eskovan/core/optics';
import { Columns2, Grid3x3 } from 'lucide-react';
import { toast } from 'sonner';
import { useProject } from '../../data/use-project.ts';
import { useFraming } from '../../desk/framing.ts';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';
import type { Ground } from '../../picture/eye.ts';
import { PicturePane } from '../../picture/picture-pane.tsx';
import { ScoutBar } from '../../picture/scout-bar.tsx';
import type { PickedSurface } from '../../picture/source.ts';
import { FIRST_F_NUMBER } from '../shared/focus-fields.tsx';
import { frameText } from '../shared/frames.ts';
import { NudgePad } from './nudge-pad.tsx';
import { changeCamera, useSeenLens } from './use-seen.ts';

interface ViewPictureProps {
  row: Row<'view'> | null;
  number: number;
  sample: CameraSample;
  /** Where the eye is, or where its flight ends. */
  still: Pose;
  /** Where the view is: what scouting is away from. */
  target: Pose | null;
  /** The eye as it is just now. */
  eye: () => Pose | null;
  ground: Ground | null;
  /** Of who walks about, metres. */
  eyeHeight: number;
  guides: boolean;
  onGuides: () => void;
  onKeep: () => void;
  onUpdate: () => void;
  onCompare: () => void;
}

/** The picture of a view, the hands in it, and what says how far off one is. */
export function ViewPicture(props: ViewPictureProps) {
  const { row, number, sample, still, target, eye, ground, eyeHeight, guides, onGuides, onKeep, onUpdate, onCompare } =
    props;
  const { project } = useProject();
  const scout = useWorkbench((state) => state.scout);
  const focusing = useWorkbench((state) => state.focusing);
  const { guide, safe, second, mask } = useFraming();
  const lens = useSeenLens(row);
  const frame = frameOf(row?.body ?? null, project.body);
  const move = (next: Pose) => workbench.set({ scout: next });
  // What is sharp is a plane across the camera's axis, not a distance along the ray.
  const focusOn = (point: Vec3) => {
    const aspect = aspectOf({ frame });
    const focus = new Projection(throughLens(lens), aspect, still.position, still.orientation).project(point).depth;
    workbench.set({ focusing: false });
    changeCamera(row, 'Lens', { pose: still, lens: { ...lens, focus, fNumber: lens.fNumber ?? FIRST_F_NUMBER } });
  };
  return (
    <div className="flex h-full flex-col bg-surround">
      <header className="on-surround flex h-9 shrink-0 items-center gap-3 px-3 text-surround-ink">
        <span className="truncate font-semibold">{row ? `${number} · ${row.name}` : 'Scouting'}</span>
        <span className="ml-auto font-mono text-sm text-surround-soft">
          {lens.focalLengthMm.toFixed(0)} mm · {frameText(frame)}
        </span>
        <Button tone="surround" small icon={<Columns2 size={13} />} onClick={onCompare}>
          Compare
        </Button>
        <Button tone="surround" small icon={<Grid3x3 size={13} />} pressed={guides} onClick={onGuides}>
          Guides
        </Button>
      </header>
      <div className="min-h-0 flex-1">
        <PicturePane
          label="Picture"
          sample={sample}
          frame={frame}
          mask={mask}
          {...(guides && {
            guides: { lines: guide, safe, second: second && aspectOf({ frame: second }) },
          })}
          hands={{
            eye,
            onMove: move,
            lens,
            ground,
            eyeHeight,
            ...(focusing && {
              onPress: (hit: PickedSurface | null) =>
                hit ? focusOn(hit.point) : toast('There is nothing to focus on there: only sky.'),
            }),
          }}
        >
          {scout && target && (
            <ScoutBar
              from={target}
              scout={scout}
              name={row?.name ?? 'the first look'}
              onBack={() => workbench.set({ scout: null })}
              onKeep={onKeep}
              {...(row && { keepLabel: 'Keep as new' })}
              {...(row && !row.body.locked ? { onUpdate } : {})}
            />
          )}
        </PicturePane>
      </div>
      <NudgePad pose={still} onMove={move} />
    </div>
  );
}
