import type { Lens, Pose, StillCamera } from '@eskovan/core/document';
import { forwardOf } from '@eskovan/core/geometry';
import { CUT_HEIGHT } from '@eskovan/core/survey';
import { Button, Line, NumberField, Segmented } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { useStorey } from '../shared/use-storey.ts';

interface CutFieldsProps extends StillCamera {
  /** The eye of this instant. */
  now: () => Pose;
  site: SiteData | null;
  onCamera: (label: string, camera: StillCamera) => void;
}

/** What a cut begins with, metres before the eye. */
const FIRST_NEAR = 1;
const FIRST_FAR = 100;
/** Who looks down by the sine of this looks at a plan. */
const DOWN = 0.999;

/** What is cut off before and behind: a plan without its roof, a section, a room without its front wall. */
export function CutFields({ pose, now, lens, site, onCamera }: CutFieldsProps) {
  const { nearCut, farCut, ...whole } = lens;
  const isCut = nearCut !== undefined || farCut !== undefined;
  const give = (label: string, next: Lens) => onCamera(label, { pose: now(), lens: next });
  const field = (label: string, key: 'nearCut' | 'farCut', first: number) => (
    <NumberField
      label={label}
      unit="m"
      measure="length"
      step={0.1}
      value={lens[key] ?? first}
      min={0.001}
      max={1e6}
      onChange={(value) => give(label, { ...lens, [key]: value })}
    />
  );
  return (
    <>
      <Line label="Cut off">
        <Segmented
          label="Cut off"
          value={isCut ? 'planes' : 'nothing'}
          options={[
            { value: 'nothing', label: 'Nothing' },
            { value: 'planes', label: 'By distance' },
          ]}
          onChange={(next) =>
            give('Cut off', next === 'nothing' ? whole : { ...whole, nearCut: FIRST_NEAR, farCut: FIRST_FAR })
          }
        />
      </Line>
      {isCut && field('Nearer than', 'nearCut', FIRST_NEAR)}
      {isCut && field('Farther than', 'farCut', FIRST_FAR)}
      {site && <CutStorey {...{ pose, lens, site }} onCut={give} />}
    </>
  );
}

/** A cut at the storey's own height takes off what is above it: for who looks straight down. */
function CutStorey({
  pose,
  lens,
  site,
  onCut,
}: StillCamera & { site: SiteData; onCut: (label: string, lens: Lens) => void }) {
  const [storey] = useStorey(site.survey);
  const shown = site.survey.storeys[storey];
  const nearCut = shown ? pose.position[1] - shown.elevation - CUT_HEIGHT : 0;
  if (!shown || lens.parallel === undefined || -forwardOf(pose.orientation)[1] < DOWN || nearCut <= 0) return null;
  return (
    <Button small className="mt-1 w-full" onClick={() => onCut(`Cut above ${shown.name}`, { ...lens, nearCut })}>
      Cut above {shown.name}
    </Button>
  );
}
