import { frameFrom, FRAMES, frameText } from '../stage/shared/frames.ts';
import { rateOptions, rateValue } from '../stage/shared/rates.ts';
import type { ProjectBody } from '@eskovan/core/document';
import { useState } from 'react';
import { editRow } from '../data/edit-row.ts';
import { currentRow } from '../data/edits.ts';
import { useProject } from '../data/use-project.ts';
import { Button, Dialog, Line, NumberField, Select } from '../kit/index.ts';

const field = 'h-8 w-60 rounded-lg border border-rule bg-raised px-2.5 hover:border-ink-faint';

/** What holds for the whole project. */
export function ProjectSettings({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { project } = useProject();
  return open ? <SettingsForm key={project.id} onClose={onClose} /> : null;
}

function SettingsForm({ onClose }: { onClose: () => void }) {
  const { project } = useProject();
  const [opened] = useState(project);
  const [name, setName] = useState(project.name);
  const [body, setBody] = useState<ProjectBody>(project.body);
  const rates = rateOptions(body.rate);
  const wrong =
    name.trim() === ''
      ? 'A project needs a name.'
      : name.trim().length > 120
        ? 'A name has at most 120 characters.'
        : null;
  const save = () => {
    if (wrong) return;
    // Only what was changed here: what others change meanwhile, or a machine, stays.
    const now = currentRow(project.id, 'project', project.id) ?? project;
    const changed = Object.fromEntries(
      Object.entries(body).filter(([key, value]) => value !== opened.body[key as keyof ProjectBody]),
    ) as Partial<ProjectBody>;
    editRow('project', project, 'Project settings', {
      ...(name === opened.name ? {} : { name: name.trim() }),
      body: { ...now.body, ...changed },
    });
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title="Project settings">
      <form
        className="grid gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <Line label={<label htmlFor="project-name">Name</label>}>
          <input
            id="project-name"
            className={field}
            value={name}
            aria-invalid={wrong !== null}
            aria-describedby={wrong ? 'project-name-fault' : undefined}
            onChange={(event) => setName(event.target.value)}
          />
        </Line>
        {wrong && (
          <p id="project-name-fault" role="alert" className="text-right text-sm text-madder">
            {wrong}
          </p>
        )}
        <Line label={<label htmlFor="project-client">Client</label>}>
          <input
            id="project-client"
            className={field}
            maxLength={120}
            value={body.client}
            onChange={(event) => setBody({ ...body, client: event.target.value })}
          />
        </Line>
        <Line label={<label htmlFor="project-round">Round</label>}>
          <input
            id="project-round"
            className={field}
            maxLength={60}
            value={body.round}
            onChange={(event) => setBody({ ...body, round: event.target.value })}
          />
        </Line>
        <Line label="Frame rate">
          <Select
            label="Frame rate"
            value={rateValue(body.rate)}
            options={rates}
            onChange={(value) => setBody({ ...body, rate: rates.find((rate) => rate.value === value)!.rate })}
          />
        </Line>
        <Line label="Frame">
          <Select
            label="Frame"
            value={FRAMES.find(({ value }) => value === frameText(body.frame))?.value ?? '16:9'}
            options={FRAMES}
            onChange={(value) => setBody({ ...body, frame: frameFrom(value) })}
          />
        </Line>
        <NumberField
          label="Eye height of new walks"
          unit="m"
          measure="length"
          value={body.eyeHeight}
          step={0.05}
          min={0.3}
          max={3}
          onChange={(eyeHeight) => setBody({ ...body, eyeHeight })}
        />
        <div className="mt-3 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="primary" type="submit">
            Save settings
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
