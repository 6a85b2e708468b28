import type { Bounds, Frame, StillCamera } from '@eskovan/core/document';
import { GUIDES, headroomOf, horizonOf, withHeadroom, withHorizon, type Guide } from '@eskovan/core/framing';
import { Projection, throughLens } from '@eskovan/core/optics';
import { useState } from 'react';
import { toast } from 'sonner';
import { setFraming, useFraming } from '../../desk/framing.ts';
import { Card, Line, NumberField, Segmented, Select } from '../../kit/index.ts';
import { frameFrom, FRAMES, frameText } from '../shared/frames.ts';

interface FramingCardProps {
  /** The view's own frame; none: it has the project's. */
  own: Frame | undefined;
  project: Frame;
  onFrame: (frame: Frame | undefined) => void;
  raising: RaisingProps;
}

const PROJECT = 'project';
const OWN = 'own';
const NONE = 'none';
const GUIDE_NAMES: Record<Guide, string> = {
  none: 'None',
  thirds: 'Thirds',
  golden: 'Golden section',
  diagonals: 'Diagonals',
  centre: 'Centre',
};
const GUIDE_OPTIONS = GUIDES.map((value) => ({ value, label: GUIDE_NAMES[value] }));

/** The frame that a view is seen in, and what helps to compose in it. */
export function FramingCard({ own, project, onFrame, raising }: FramingCardProps) {
  const { guide, safe, mask, second, cameras } = useFraming();
  const [asOwn, setAsOwn] = useState(false);
  const known = own && FRAMES.some(({ value }) => value === frameText(own));
  const value = !own ? PROJECT : asOwn || !known ? OWN : frameText(own);
  const options = [
    { value: PROJECT, label: `As the project, ${frameText(project).replace(':', ' : ')}` },
    ...FRAMES,
    { value: OWN, label: 'Own ratio' },
  ];
  return (
    <Card title="Framing">
      <Line label="Ratio">
        <Select
          label="Ratio"
          value={value}
          options={options}
          onChange={(next) => {
            setAsOwn(next === OWN);
            if (next === OWN) onFrame(own ?? project);
            else onFrame(next === PROJECT ? undefined : frameFrom(next));
          }}
        />
      </Line>
      {own && value === OWN && (
        <>
          <NumberField
            label="Width of the frame"
            value={own.width}
            step={1}
            min={0.1}
            max={5000}
            onChange={(width) => onFrame({ ...own, width })}
          />
          <NumberField
            label="Height of the frame"
            value={own.height}
            step={1}
            min={0.1}
            max={5000}
            onChange={(height) => onFrame({ ...own, height })}
          />
        </>
      )}
      <Line label="Cut out as well">
        <Select
          label="Cut out as well"
          value={second ? frameText(second) : NONE}
          options={[{ value: NONE, label: 'Nothing' }, ...FRAMES]}
          onChange={(next) => setFraming({ second: next === NONE ? null : frameFrom(next) })}
        />
      </Line>
      <Line label="Guides">
        <Select
          label="Guide lines"
          value={guide}
          options={GUIDE_OPTIONS}
          onChange={(next) => setFraming({ guide: next })}
        />
      </Line>
      <Shown label="Safe areas" shown={safe} onShown={(next) => setFraming({ safe: next })} />
      <Shown label="Other views" shown={cameras} onShown={(next) => setFraming({ cameras: next })} />
      <Raising {...raising} />
      <NumberField
        label="Dark outside"
        unit="%"
        digits={0}
        step={5}
        value={100 * mask}
        min={0}
        max={100}
        onChange={(percent) => setFraming({ mask: percent / 100 })}
      />
    </Card>
  );
}

interface ShownProps {
  label: string;
  shown: boolean;
  onShown: (shown: boolean) => void;
}

/** Is something drawn over the picture? */
function Shown({ label, shown, onShown }: ShownProps) {
  return (
    <Line label={label}>
      <Segmented
        label={label}
        value={shown ? 'shown' : 'hidden'}
        options={[
          { value: 'hidden', label: 'Hidden' },
          { value: 'shown', label: 'Shown' },
        ]}
        onChange={(next) => onShown(next === 'shown')}
      />
    </Line>
  );
}

interface RaisingProps {
  camera: StillCamera;
  /** Width over height of the frame. */
  aspect: number;
  /** Extent of what the picture is about. */
  subject: Bounds | null;
  /** The camera of this instant. */
  now: () => StillCamera;
  onCamera: (label: string, camera: StillCamera) => void;
}

/** How high the horizon and the subject stand in the frame. */
function Raising({ camera, aspect, subject, now, onCamera }: RaisingProps) {
  const { pose, lens } = camera;
  const projection = new Projection(throughLens(lens), aspect, pose.position, pose.orientation);
  const horizon = horizonOf(projection);
  const headroom = subject && headroomOf(projection, subject);
  const make = (label: string, made: StillCamera | null) => {
    if (made) onCamera(label, made);
    else toast('Neither this camera nor its lens reaches so far. Level it, or choose a shorter lens.');
  };
  return (
    <>
      {horizon !== null && (
        <NumberField
          label="Horizon from below"
          unit="%"
          digits={0}
          step={1}
          value={100 * horizon}
          min={-200}
          max={300}
          onChange={(percent) => make('Horizon', withHorizon(now(), aspect, percent / 100))}
        />
      )}
      {subject && headroom !== null && (
        <NumberField
          label="Room over the subject"
          unit="%"
          digits={0}
          step={1}
          value={100 * headroom}
          min={-100}
          max={100}
          onChange={(percent) => make('Room over the subject', withHeadroom(now(), aspect, percent / 100, subject))}
        />
      )}
    </>
  );
}
