import type { Row } from '@eskovan/core/document';
import { leftOutOf, type Brought } from '@eskovan/core/exchange';
import { FileDown, FileUp } from 'lucide-react';
import { useEffect, useRef, useState, type ChangeEvent } from 'react';
import { toast } from 'sonner';
import { usePerson } from '../../data/person.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Line, Progress, saveFile, Select } from '../../kit/index.ts';
import { useModels } from '../../site/use-site.ts';
import { saidOf } from '../../worker/said.ts';
import { WhichViews, useWhichViews } from './which-views.tsx';
import { bcfFile, csvFile, glbFile, keepBrought, picturesFile, readViews, type Carried } from './carry.ts';
import { useSceneIn } from '../../site/use-scene-in.ts';

interface CarryDialogProps {
  /** All views in their order, and those that are chosen. */
  views: readonly Row<'view'>[];
  chosen: readonly Row<'view'>[];
  onClose: () => void;
}

const AS: readonly { value: Carried; label: string }[] = [
  { value: 'bcf', label: 'Viewpoints, BCF 3.0' },
  { value: 'glb', label: 'Cameras, GLB' },
  { value: 'csv', label: 'Table of poses, CSV' },
  { value: 'pictures', label: 'Finished pictures, ZIP' },
];
const ENDING: Record<Carried, string> = { bcf: 'bcf', glb: 'glb', csv: 'csv', pictures: 'zip' };
const WIDTHS = [1280, 1920, 2560, 3840].map((width) => ({ value: String(width), label: `${width} px wide` }));
const OWN = 'project';
const NOT_MADE = 'The file could not be made: there may be too little memory. Try fewer views, or smaller pictures.';
const NOT_READ = 'The file could not be read. Save it again as BCF 2.1 or 3.0.';

/** Views to other programs, and from them. */
export function CarryDialog({ views, chosen, onClose }: CarryDialogProps) {
  const document = useProject();
  const { project } = document;
  const models = useModels();
  const which = useWhichViews(views, chosen);
  const [as, setAs] = useState<Carried>('bcf');
  const [modelId, setModelId] = useState<string>(models[0]?.id ?? OWN);
  const [width, setWidth] = useState('1920');
  const [done, setDone] = useState<number | null>(null);
  const [brought, setBrought] = useState<{ file: string; views: Brought } | null>(null);
  const stop = useRef<AbortController | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const author = usePerson(({ name }) => name);
  const sceneIn = useSceneIn();
  const model = models.find(({ id }) => id === modelId) ?? null;
  useEffect(() => () => stop.current?.abort(), []);

  const { rows } = which;
  const order = { document, rows, model, author };
  const { shifted } = leftOutOf(
    rows.map(({ id, name, body }) => ({ ...body, id, name, number: 0, status: 'draft', aspect: 1 })),
  );
  const unsaid = (as === 'bcf' || as === 'glb') && shifted.length > 0;

  const send = async () => {
    setDone(0);
    const abort = (stop.current = new AbortController());
    try {
      const name = `${project.name}, views.${ENDING[as]}`;
      if (as === 'bcf') saveFile(await bcfFile(order), name);
      else if (as === 'glb') saveFile(await glbFile(order), name);
      else if (as === 'csv') saveFile(csvFile(order), name);
      else {
        const { zip, failed } = await picturesFile({
          ...order,
          width: Number(width),
          sceneIn,
          onDone: setDone,
          signal: abort.signal,
        });
        if (failed.length < rows.length) saveFile(zip, name);
        if (failed.length > 0) toast.error(`Not drawn: ${failed.join(', ')}. Their light may not be whole yet.`);
      }
      onClose();
    } catch {
      if (!abort.signal.aborted) toast.error(NOT_MADE);
    } finally {
      setDone(null);
    }
  };
  const read = async (event: ChangeEvent<HTMLInputElement>) => {
    const [given] = event.target.files ?? [];
    event.target.value = '';
    if (!given) return;
    try {
      setBrought({
        file: given.name,
        views: readViews(new Uint8Array(await given.arrayBuffer()), given.name, document, model),
      });
    } catch (error) {
      toast.error(saidOf(error, NOT_READ));
    }
  };
  return (
    <Dialog open onClose={onClose} title="Views out and in">
      <WhichViews {...which} />
      <Line label="As">
        <Select label="As" value={as} options={AS} onChange={setAs} />
      </Line>
      {models.length > 0 && as === 'bcf' && (
        <Line label="Coordinates of">
          <Select
            label="Coordinates of"
            value={modelId}
            options={[
              ...models.map(({ id, name }) => ({ value: id, label: name })),
              { value: OWN, label: 'This project' },
            ]}
            onChange={setModelId}
          />
        </Line>
      )}
      {as === 'pictures' && (
        <Line label="Size">
          <Select label="Size" value={width} options={WIDTHS} onChange={setWidth} />
        </Line>
      )}
      <p role="status" className="mt-2 text-ink-soft">
        {rows.length === 0 ? 'There are no such views.' : `${rows.length} ${rows.length === 1 ? 'view' : 'views'}.`}
        {unsaid &&
          ` ${shifted.length === 1 ? `“${shifted[0]}” has a shifted lens` : `${shifted.length} of them have shifted lenses`}, which this format cannot say: there the picture is centred elsewhere.`}
      </p>
      {as === 'pictures' && done !== null && (
        <Progress label="Pictures drawn" fraction={done / Math.max(1, rows.length)} />
      )}
      <div className="mt-3 flex justify-end gap-2">
        {done !== null && as === 'pictures' && <Button onClick={() => stop.current?.abort()}>Stop</Button>}
        <Button
          tone="primary"
          icon={<FileDown size={14} />}
          disabled={done !== null || rows.length === 0}
          onClick={() => void send()}
        >
          Save
        </Button>
      </div>
      <hr className="my-4 border-rule" />
      <p className="text-ink-soft">
        Viewpoints of a BCF file become views here, in the coordinates of {model ? `“${model.name}”` : 'this project'}.
      </p>
      {brought && (
        <div role="status" className="mt-2 grid gap-1">
          <p>
            “{brought.file}” holds {brought.views.views.length}{' '}
            {brought.views.views.length === 1 ? 'viewpoint' : 'viewpoints'} that can be used.
          </p>
          {brought.views.leftOut.length > 0 && (
            <ul className="max-h-24 overflow-y-auto text-sm text-ink-soft">
              {brought.views.leftOut.map((reason) => (
                <li key={reason}>{reason}</li>
              ))}
            </ul>
          )}
        </div>
      )}
      <div className="mt-3 flex justify-end gap-2">
        <input
          ref={file}
          type="file"
          aria-label="BCF file"
          accept=".bcf,.bcfzip"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => void read(event)}
        />
        <Button icon={<FileUp size={14} />} onClick={() => file.current?.click()}>
          {brought ? 'Another file' : 'Choose a BCF file'}
        </Button>
        {brought && brought.views.views.length > 0 && (
          <Button
            tone="primary"
            onClick={() => {
              keepBrought(brought.views, document);
              onClose();
            }}
          >
            Keep as views
          </Button>
        )}
      </div>
    </Dialog>
  );
}
