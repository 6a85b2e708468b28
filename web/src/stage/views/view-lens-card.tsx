import { MOST_SHIFT, type Sensor, type StillCamera } from '@eskovan/core/document';
import { heldOn, straightened } from '@eskovan/core/framing';
import { SENSORS } from '@eskovan/core/optics';
import { Building2, Crosshair } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { useWorkbench, workbench } from '../../desk/workbench.ts';
import type { SiteData } from '../../site/use-site.ts';
import { Button, Line, NumberField, Select } from '../../kit/index.ts';
import { EyeLensCard } from '../shared/eye-lens-card.tsx';
import type { LensChange } from '../shared/focus-fields.tsx';
import { ProjectionFields } from './projection-fields.tsx';

interface ViewLensCardProps extends StillCamera {
  /** The camera of this instant. */
  now: () => StillCamera;
  aspect: number;
  site: SiteData | null;
  /** @param label what is done */
  onCamera: (label: string, camera: StillCamera) => void;
}

const OWN = 'own';
const SENSOR_OPTIONS = [
  ...SENSORS.map(({ name }) => ({ value: name, label: name })),
  { value: OWN, label: 'Own size' },
];

const nameOf = ({ widthMm, heightMm }: Sensor): string =>
  SENSORS.find((one) => one.widthMm === widthMm && one.heightMm === heightMm)?.name ?? OWN;

/** Focal length, sensor, shift and focus of what is seen, and straight verticals with one press. */
export function ViewLensCard({ pose, now, lens, aspect, site, onCamera }: ViewLensCardProps) {
  const focusing = useWorkbench((state) => state.pressing === 'focus');
  const holding = useWorkbench((state) => state.holding);
  const subject = useWorkbench((state) => state.subject);
  const { sensor, shift } = lens;
  const onLens = (change: LensChange) => {
    const seen = now();
    const next = change(seen.lens);
    const longer = holding && subject && next.focalLengthMm !== seen.lens.focalLengthMm;
    const kept = longer ? heldOn(subject.bounds, seen, next.focalLengthMm, aspect) : null;
    onCamera('Lens', kept ?? { pose: seen.pose, lens: next });
  };
  const [asOwn, setAsOwn] = useState(false);
  const named = asOwn ? OWN : nameOf(sensor);
  const setSensor = ({ widthMm, heightMm }: Sensor) => onLens((seen) => ({ ...seen, sensor: { widthMm, heightMm } }));
  const shiftField = (label: string, k: 0 | 1, size: number) => (
    <NumberField
      label={label}
      unit="mm"
      measure="millimetre"
      digits={1}
      step={0.5}
      value={shift[k] * size}
      min={-MOST_SHIFT * size}
      max={MOST_SHIFT * size}
      onChange={(mm) =>
        onLens((seen) => ({ ...seen, shift: k === 0 ? [mm / size, seen.shift[1]] : [seen.shift[0], mm / size] }))
      }
    />
  );
  const straighten = () => {
    const made = straightened(now());
    if (made) onCamera('Straight verticals', made);
    else toast.error('The camera looks up or down too steeply: no lens is shifted that far. Step back, or tilt less.');
  };
  const projection = <ProjectionFields {...{ pose, lens, aspect, site, onCamera }} now={() => now().pose} />;
  if (lens.parallel !== undefined)
    return (
      <EyeLensCard lens={lens} onLens={onLens} aspect={aspect}>
        {projection}
      </EyeLensCard>
    );
  return (
    <EyeLensCard lens={lens} onLens={onLens} aspect={aspect}>
      <Button
        small
        className="my-1 w-full"
        icon={<Crosshair size={13} />}
        pressed={focusing}
        onClick={() => workbench.set({ pressing: focusing ? null : 'focus' })}
      >
        {focusing ? 'Press what is to be sharp' : 'Focus by pressing'}
      </Button>
      <Line label="Sensor">
        <Select
          label="Sensor"
          value={named}
          options={SENSOR_OPTIONS}
          onChange={(name) => {
            setAsOwn(name === OWN);
            const chosen = SENSORS.find((one) => one.name === name);
            if (chosen) setSensor(chosen);
          }}
        />
      </Line>
      {named === OWN && (
        <>
          <NumberField
            label="Sensor width"
            unit="mm"
            measure="millimetre"
            value={sensor.widthMm}
            step={0.1}
            min={1}
            max={200}
            onChange={(widthMm) => setSensor({ ...sensor, widthMm })}
          />
          <NumberField
            label="Sensor height"
            unit="mm"
            measure="millimetre"
            value={sensor.heightMm}
            step={0.1}
            min={1}
            max={200}
            onChange={(heightMm) => setSensor({ ...sensor, heightMm })}
          />
        </>
      )}
      {shiftField('Shift up', 1, sensor.heightMm)}
      {shiftField('Shift right', 0, sensor.widthMm)}
      <Button small className="mt-1 w-full" icon={<Building2 size={13} />} onClick={straighten}>
        Straight verticals
      </Button>
      {projection}
    </EyeLensCard>
  );
}
