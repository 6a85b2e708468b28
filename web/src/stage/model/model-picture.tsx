import { standing } from '@eskovan/core/move';
import { aspectOf, DEFAULT_LENS, type Look, type Pose, type Row } from '@eskovan/core/document';
import { firstLook, placeBounds } from '@eskovan/core/site';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { Footprints, Mountain, PersonStanding } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Empty, Panels, Segmented } from '../../kit/index.ts';
import { markParts, pickSurface, standPerson, usePictureState } from '../../picture/client.ts';
import { Ground, worthSeeing } from '../../picture/eye.ts';
import { PicturePane } from '../../picture/picture-pane.tsx';
import { MovingCamera } from '../../plan/camera-mark.tsx';
import { Plan } from '../../plan/plan.tsx';
import { useSiteData, type SiteData } from '../../site/use-site.ts';
import { useParts } from '../../site/use-parts.ts';
import { useStorey } from '../shared/use-storey.ts';
import { choosePart } from './edit-parts.ts';
import { partsOf } from './materials.ts';
import { RoomLabels } from './room-labels.tsx';
import { SlopeKey } from './slope-key.tsx';

const LOOKS: readonly { value: Look; label: string }[] = [
  { value: 'natural', label: 'Natural' },
  { value: 'clay', label: 'Clay' },
  { value: 'line', label: 'Line' },
];

/** The chosen model in the picture, with a person beside it for scale, and the plan below. */
export function ModelPicture({ row }: { row: Row<'model'> }) {
  const { project } = useProject();
  const { data: site } = useSiteData();
  const scout = useWorkbench((state) => state.scout);
  const part = useWorkbench((state) => state.part);
  const material = useWorkbench((state) => state.material);
  const parts = useParts();
  const marked = useMemo(
    () =>
      material
        ? { model: material.model, names: partsOf(parts, material).map(({ name }) => name) }
        : { model: part?.model ?? '', names: part ? [part.name] : [] },
    [part, material, parts],
  );
  const [person, setPerson] = useState(true);
  const [version, setVersion] = useState(0);
  const { bounds, placement } = row.body;
  const placed = useMemo(() => placeBounds(bounds, placement), [bounds, placement]);
  const aspect = aspectOf(project.body);
  const home = useMemo(
    () => firstLook(worthSeeing(placed, site?.survey ?? null), aspect),
    [placed, site?.survey, aspect],
  );
  const ground = useMemo(() => (site ? new Ground(site.footing.floors, site.survey) : null), [site]);
  const pose = scout ?? home;

  // Finding the floor of a heavy site takes a moment: the picture goes first.
  const drawn = usePictureState((state) => state.loaded !== null);
  useEffect(() => {
    if (!drawn) return;
    const again = () => setVersion((n) => n + 1);
    void standPerson(person ? { at: besides(placed, site) } : null).then(again);
    return () => void standPerson(null);
  }, [drawn, person, placed, site]);
  useEffect(() => {
    const again = () => setVersion((n) => n + 1);
    void markParts(marked.model, marked.names).then(again);
    return () => void markParts('', []);
  }, [marked]);
  useEffect(() => () => workbench.set({ alone: null, playing: false }), []);

  const look = (value: Look) =>
    editBody('project', project, `Look: ${value}`, (body) => ({
      ...body,
      look: value,
    }));
  const picture = (
    <div className="flex h-full flex-col bg-surround">
      <header className="on-surround flex h-10 shrink-0 items-center gap-2 px-2.5 text-surround-ink">
        <span className="min-w-0 truncate font-semibold">{row.name}</span>
        <span className="ml-auto" />
        <Segmented label="Look" value={project.body.look} options={LOOKS} onChange={look} />
        <Button
          tone="surround"
          small
          icon={<PersonStanding size={14} />}
          pressed={person}
          onClick={() => setPerson(!person)}
        >
          1.75 m
        </Button>
      </header>
      <div className="min-h-0 flex-1">
        <ModelPane home={home} ground={ground} version={version} />
      </div>
    </div>
  );
  return (
    <Panels
      id="model-picture"
      direction="vertical"
      panels={[
        { id: 'view', size: '60%', min: 200, content: picture },
        {
          id: 'plan',
          min: 120,
          content: site ? <ModelPlan site={site} pose={pose} /> : <Empty title="The plan comes as soon as it is cut" />,
        },
      ]}
    />
  );
}

/** The picture itself; it alone follows the time of what moves. */
function ModelPane({ home, ground, version }: { home: Pose; ground: Ground | null; version: number }) {
  const { project } = useProject();
  const scout = useWorkbench((state) => state.scout);
  const time = useWorkbench((state) => state.time);
  const pose = scout ?? home;
  const sample = useMemo(() => standing(pose, DEFAULT_LENS, time), [pose, time]);
  return (
    <PicturePane
      label="Picture of the model"
      sample={sample}
      version={version}
      hands={{
        eye: () => workbench.get().scout ?? home,
        onMove: (next) => workbench.set({ scout: next }),
        lens: DEFAULT_LENS,
        ground,
        eyeHeight: project.body.eyeHeight,
        onPress: (hit) => choosePart(hit && { model: hit.model, name: hit.name }),
      }}
    >
      {scout && (
        <div className="absolute right-3 bottom-3">
          <Button tone="surround" small onClick={() => workbench.set({ scout: null })}>
            Whole model
          </Button>
        </div>
      )}
    </PicturePane>
  );
}

function ModelPlan({ site, pose }: { site: SiteData; pose: Pose }) {
  const { project } = useProject();
  const [storey, setStorey] = useStorey(site.survey);
  const { width, height } = project.body.frame;
  const [walkway, setWalkway] = useState(false);
  const [slopes, setSlopes] = useState(false);
  const shown = site.survey.storeys[storey];
  const elevation = shown?.elevation ?? 0;
  return (
    <Plan
      survey={site.survey}
      storey={storey}
      onStorey={setStorey}
      label="Plan of the model"
      north={project.body.sun.north}
      walkway={walkway}
      slopes={slopes}
      tools={
        <>
          <Button small icon={<Footprints size={13} />} pressed={walkway} onClick={() => setWalkway(!walkway)}>
            Where one can walk
          </Button>
          {site.survey.relief && (
            <Button small icon={<Mountain size={13} />} pressed={slopes} onClick={() => setSlopes(!slopes)}>
              Slopes
            </Button>
          )}
          {site.survey.relief && slopes && <SlopeKey />}
        </>
      }
      hands={{
        // What lies below the cut is what the plan shows.
        onDoublePress: (x, z) =>
          void pickSurface([x, elevation + CUT_HEIGHT, z], [0, -1, 0]).then((hit) =>
            choosePart(hit && { model: hit.model, name: hit.name }),
          ),
      }}
      movers={
        <>
          {shown && <RoomLabels storey={shown} />}
          <MovingCamera sample={standing(pose, DEFAULT_LENS)} aspect={width / height} />
        </>
      }
    />
  );
}

/** Where a person stands beside a model: off its south-west corner, on the floor there. */
function besides({ min, max }: ReturnType<typeof placeBounds>, site: SiteData | null): [number, number, number] {
  const size = Math.max(max[0] - min[0], max[2] - min[2]);
  // Beside a landscape nobody stands: the person stands by its house, or in its middle.
  const house = size > 80 ? site?.survey.storeys.find(({ rooms }) => rooms.length > 0)?.extent : undefined;
  const [x, z] = house
    ? [house[0] - 1.5, house[3] + 1.5]
    : size > 80
      ? [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2]
      : [min[0] - 0.6, max[2] - 0.25 * (max[2] - min[2])];
  const floor = site?.footing.floors.floorBelow(x, z, min[1] + (size > 80 ? max[1] - min[1] : 0.6)) ?? -Infinity;
  return [x, Number.isFinite(floor) ? floor : min[1], z];
}
