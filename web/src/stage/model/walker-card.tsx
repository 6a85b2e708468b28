import type { Walker } from '@eskovan/core/document';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { Card, NumberField } from '../../kit/index.ts';

/** Who walks here: what counts as a floor and what as in the way. */
export function WalkerCard() {
  const { project } = useProject();
  const { walker } = project.body;
  const change = (values: Partial<Walker>) =>
    editBody('project', project, 'Walker', (body) => ({
      ...body,
      walker: { ...body.walker, ...values },
    }));
  return (
    <Card title="Walker">
      <NumberField
        label="Radius"
        unit="m"
        measure="length"
        value={walker.radius}
        step={0.05}
        min={0.05}
        max={2}
        onChange={(radius) => change({ radius })}
      />
      <NumberField
        label="Height"
        unit="m"
        measure="length"
        value={walker.height}
        step={0.05}
        min={0.5}
        max={3}
        onChange={(height) => change({ height })}
      />
      <NumberField
        label="Step"
        unit="m"
        measure="length"
        value={walker.step}
        step={0.01}
        min={0.02}
        max={1}
        onChange={(step) => change({ step })}
      />
      <NumberField
        label="Steepest floor"
        unit="°"
        measure="angle"
        digits={0}
        value={walker.slope}
        step={1}
        min={5}
        max={80}
        onChange={(slope) => change({ slope })}
      />
    </Card>
  );
}
