import { toDegrees } from '@eskovan/core/geometry';
import { aspectOf, type Row } from '@eskovan/core/document';
import { asBefore, viewOfCamera } from '@eskovan/core/site';
import { useProject } from '../../data/use-project.ts';
import { editBody } from '../../data/edit-row.ts';
import { Button, Card } from '../../kit/index.ts';
import { keepSeveral } from '../shared/keep-view.ts';
import { dismissCameras, dismissChanges, dismissLost, useImport } from '../../site/import-model.ts';

/** Cameras that came with a file, offered as views. */
export function CamerasCard() {
  const document = useProject();
  const { project } = document;
  const offer = useImport((state) => (state.cameras?.projectId === project.id ? state.cameras : null));
  const row = document.model.find(({ id }) => id === offer?.modelId) as Row<'model'> | undefined;
  if (!offer || !row) return null;
  const aspect = aspectOf(project.body);
  const views = offer.cameras.map((camera) => ({ camera, body: viewOfCamera(camera, row.body.placement, aspect) }));
  const good = views.filter(({ body }) => body !== null);
  const keep = () => {
    keepSeveral(
      document,
      `Keep ${good.length} cameras as views`,
      good.map(({ camera, body }, i) => ({ name: camera.name.trim() || `Camera ${i + 1}`, body: body! })),
    );
    dismissCameras();
  };
  return (
    <Card title="Cameras in the file" note={`${offer.cameras.length} found`}>
      <ul className="mb-2 max-h-28 overflow-y-auto text-ink-soft">
        {views.map(({ camera, body }, i) => (
          <li key={i} className="flex justify-between gap-2">
            <span className="truncate">{camera.name || `Camera ${i + 1}`}</span>
            <span className="shrink-0 font-mono text-sm">
              {!body
                ? 'impossible'
                : camera.verticalAngle === null
                  ? 'parallel'
                  : `${toDegrees(camera.verticalAngle).toFixed(1)}° high`}
            </span>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button small tone="primary" disabled={good.length === 0} onClick={keep}>
          Keep as views
        </Button>
        <Button small onClick={dismissCameras}>
          Leave them
        </Button>
      </div>
    </Card>
  );
}

/** Changed parts that the newer file does not have any more. */
export function LostCard() {
  const { project } = useProject();
  const lost = useImport((state) => (state.lost?.projectId === project.id ? state.lost : null));
  if (!lost) return null;
  return (
    <Card title="Changes not found again" note={String(lost.names.length)}>
      <p className="mb-1 text-ink-soft">
        The newer file has no parts or materials of these names; their changes are kept for later.
      </p>
      <ul className="mb-2 max-h-24 overflow-y-auto">
        {lost.names.map((name) => (
          <li key={name} className="truncate">
            {name}
          </li>
        ))}
      </ul>
      <Button small onClick={dismissLost}>
        Understood
      </Button>
    </Card>
  );
}

/** Less than this is no change, metres. */
const STILL = 0.001;

const signed = (metres: number) => `${metres < 0 ? '−' : '+'}${Math.abs(metres).toFixed(2)} m`;

/** Names that are written out; of more only the number. */
const WRITTEN = 6;

function Names({ words, names }: { words: string; names: readonly string[] }) {
  const rest = names.length - WRITTEN;
  return (
    <li className="break-words">
      {words}: {names.slice(0, WRITTEN).join(', ')}
      {rest > 0 && ` and ${rest.toLocaleString('en')} more`}.
    </li>
  );
}

/** What a newer file has changed. */
export function ChangesCard() {
  const { project, model } = useProject();
  const seen = useImport((state) => (state.changes?.projectId === project.id ? state.changes : null));
  const row = model.find(({ id }) => id === seen?.modelId);
  if (!seen || !row) return null;
  const { moved, grew, triangles, came, went } = seen.changes;
  const large = (values: readonly number[]) => values.some((value) => Math.abs(value) > STILL);
  const as = ([x, y, z]: readonly [number, number, number]) => `east ${signed(x)}, south ${signed(z)}, up ${signed(y)}`;
  // Grown on one side only moves the middle by half of that: then nothing has moved.
  const whole = !large(grew) && large(moved);
  return (
    <Card title="The newer file" note={row.name}>
      <ul className="mb-2 grid gap-1 text-ink-soft">
        <li>{whole ? `All of it has moved: ${as(moved)}.` : 'Nothing has moved: it lies by its own coordinates.'}</li>
        {large(grew) && <li>The whole is larger or smaller now: {as(grew)}.</li>}
        {triangles !== 0 && (
          <li>
            {Math.abs(triangles).toLocaleString('en')} triangles {triangles > 0 ? 'more' : 'fewer'}.
          </li>
        )}
        {came.length > 0 && <Names words="New" names={came} />}
        {went.length > 0 && <Names words="Gone" names={went} />}
      </ul>
      <div className="flex gap-2">
        {whole && (
          <Button
            small
            tone="primary"
            onClick={() => {
              editBody('model', row, `Keep ${row.name} where it was`, (body) => ({
                ...body,
                placement: asBefore(seen.changes, body.placement),
              }));
              dismissChanges();
            }}
          >
            Keep it where it was
          </Button>
        )}
        <Button small onClick={dismissChanges}>
          Understood
        </Button>
      </div>
    </Card>
  );
}
