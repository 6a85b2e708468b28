import { FIRST_LIMITS, type CheckLimits } from '@eskovan/core/document';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, NumberField } from '../../kit/index.ts';

const FIELDS: readonly {
  key: keyof CheckLimits;
  label: string;
  unit: string;
  step: number;
  min: number;
  max: number;
}[] = [
  { key: 'haste', label: 'Too fast for a walk', unit: 'm/s', step: 0.05, min: 0.1, max: 50 },
  { key: 'turnNote', label: 'A turn is noted from', unit: '°/s', step: 5, min: 1, max: 360 },
  { key: 'turnProblem', label: 'Eyes turn at most', unit: '°/s', step: 5, min: 1, max: 720 },
  { key: 'turnAcceleration', label: 'And begin to by', unit: '°/s²', step: 10, min: 5, max: 5000 },
  { key: 'crossing', label: 'Nothing crosses the picture within', unit: 's', step: 0.5, min: 0.5, max: 60 },
  { key: 'offLevel', label: 'A horizon may be off by', unit: '°', step: 0.1, min: 0.05, max: 45 },
  { key: 'converging', label: 'Verticals may lean by', unit: '°', step: 0.5, min: 0.1, max: 90 },
  { key: 'stretched', label: 'Edges drawn out up to', unit: '× width', step: 0.05, min: 0.05, max: 5 },
  { key: 'eyeLow', label: 'Eyes are from', unit: 'm', step: 0.05, min: 0.1, max: 3 },
  { key: 'eyeHigh', label: 'Up to', unit: 'm', step: 0.05, min: 0.5, max: 5 },
  { key: 'straightOn', label: 'No facade straight on, within', unit: '°', step: 1, min: 0.5, max: 45 },
  { key: 'burntOut', label: 'Burnt out, at most', unit: '× picture', step: 0.01, min: 0.001, max: 1 },
  { key: 'tooNear', label: 'Nothing nearer than', unit: 'm', step: 0.05, min: 0.01, max: 10 },
];

/** From where on the checks of this project say something, and what eyes are held to. */
export function LimitsDialog({ onClose }: { onClose: () => void }) {
  const { project } = useProject();
  const set = (change: Partial<CheckLimits>) =>
    editBody('project', project, 'Limits of the checks', (body) => ({
      ...body,
      limits: { ...body.limits, ...change },
    }));
  return (
    <Dialog open onClose={onClose} title="Limits of this project">
      <p className="mb-2 text-ink-soft">They hold for all moves and views of the project, in checks and in films.</p>
      {FIELDS.map(({ key, label, unit, step, min, max }) => (
        <NumberField
          key={key}
          label={label}
          unit={unit}
          {...(unit === 'm' && { measure: 'length' as const })}
          {...(unit === 'm/s' && { measure: 'speed' as const })}
          value={project.body.limits[key]}
          step={step}
          min={min}
          max={max}
          onChange={(value) => set({ [key]: value })}
        />
      ))}
      <div className="mt-3 flex justify-end">
        <Button onClick={() => set(FIRST_LIMITS)}>As they were at first</Button>
      </div>
    </Dialog>
  );
}
