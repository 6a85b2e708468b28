import { aspectOf, frameOf, type ProjectDocument } from '@eskovan/core/document';
import { frameCount } from '@eskovan/core/reel';
import { Clapperboard, Image as ImageIcon } from 'lucide-react';
import { useState } from 'react';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useLight, usePictureScene, useSite } from '../../site/use-site.ts';
import { Button, Card, Line, Select, Value } from '../../kit/index.ts';
import { TimeField } from '../shared/time-field.tsx';
import { useCompiledMove } from '../shared/use-compiled-move.ts';
import { rateText } from '../shared/rates.ts';
import { evenPixels, QUALITIES, SHUTTERS, SIZES } from '../shared/render-options.ts';
import { startRender } from '../shared/render-jobs.ts';

type SourceKey = `${'move' | 'view'}:${string}`;

function sourcesOf(document: ProjectDocument): { value: SourceKey; label: string }[] {
  return [
    ...liveRows(document.move).map((row) => ({ value: `move:${row.id}` as SourceKey, label: `Move: ${row.name}` })),
    ...liveRows(document.view).map((row) => ({ value: `view:${row.id}` as SourceKey, label: `View: ${row.name}` })),
  ];
}

/** What to render, how large and how fine. */
export function RenderForm() {
  const document = useProject();
  const { project } = document;
  const site = useSite();
  const sources = sourcesOf(document);
  const [chosen, setChosen] = useState<SourceKey | null>(null);
  const [size, setSize] = useState<(typeof SIZES)[number]['value']>('720');
  const [quality, setQuality] = useState<(typeof QUALITIES)[number]['value']>('good');
  const [shutter, setShutter] = useState<(typeof SHUTTERS)[number]['value']>('half');
  const [range, setRange] = useState<{ from: number; to: number } | null>(null);
  const source = sources.find(({ value }) => value === chosen) ?? sources[0];
  const [kind, id] = (source?.value ?? 'move:').split(':') as ['move' | 'view', string];
  const move = kind === 'move' ? document.move.find((row) => row.id === id) : undefined;
  const view = kind === 'view' ? document.view.find((row) => row.id === id) : undefined;
  const light = (move ?? view)?.body.light;
  const scene = usePictureScene(light);
  const { whole } = useLight(light);
  const compiled = useCompiledMove(move?.body ?? null);
  const duration = compiled?.duration ?? 0;
  const from = Math.min(range?.from ?? 0, Math.max(0, duration - 0.1));
  const to = Math.min(range?.to ?? duration, duration);
  const rate = project.body.rate;
  const aspect = aspectOf({ frame: frameOf(view?.body ?? null, project.body) });
  const { width } = SIZES.find(({ value }) => value === size)!;
  const pixels = evenPixels(width, aspect);
  const { subframes } = QUALITIES.find(({ value }) => value === quality)!;
  const frames = frameCount(Math.max(0, to - from), rate);
  const row = move ?? view;
  // A picture without its light is no take.
  const lit = scene?.source.kind === 'lit' && whole;
  const ready = lit && (view !== undefined || (compiled !== null && to > from));

  const render = () => {
    if (!row || !source || !scene || !site) return;
    const shared = { scene, size: pixels, subframes };
    startRender({
      projectId: project.id,
      source: { kind, id, name: row.name },
      order: view
        ? { ...shared, source: { kind: 'pose', pose: view.body.pose, lens: view.body.lens }, output: { kind: 'still' } }
        : {
            ...shared,
            source: {
              kind: 'move',
              body: move!.body,
              walker: project.body.walker,
              limits: project.body.limits,
              aspect,
              floorUrl: fileUrl(site.floor.sha256),
              from,
            },
            output: { kind: 'video', rate, frames, shutter: SHUTTERS.find(({ value }) => value === shutter)!.open },
          },
    });
  };

  return (
    <Card title="New render">
      {sources.length === 0 ? (
        <p className="py-2 text-ink-soft">Keep a view or draw a walk first; then it can be rendered here.</p>
      ) : (
        <>
          <Line label="What">
            <Select
              label="What to render"
              value={source!.value}
              options={sources}
              onChange={(value) => {
                setChosen(value);
                setRange(null);
              }}
            />
          </Line>
          <Line label="Size">
            <Select label="Size" value={size} options={SIZES} onChange={setSize} />
          </Line>
          <Line label="Quality">
            <Select label="Quality" value={quality} options={QUALITIES} onChange={setQuality} />
          </Line>
          {move && (
            <>
              <Line label="Shutter open">
                <Select label="Shutter open" value={shutter} options={SHUTTERS} onChange={setShutter} />
              </Line>
              <TimeField
                label="From"
                value={from}
                step={0.5}
                min={0}
                max={Math.max(0, duration - 0.1)}
                onChange={(value) => setRange({ from: value, to: Math.max(to, value + 0.1) })}
              />
              <TimeField
                label="To"
                value={to}
                step={0.5}
                min={from + 0.04}
                max={duration}
                onChange={(value) => setRange({ from, to: value })}
              />
            </>
          )}
          <Line label="Gives">
            <Value>
              {pixels.width} × {pixels.height}
              {move && `, ${frames} frames at ${rateText(rate)}`}
            </Value>
          </Line>
          {view && quality === 'fine' && (
            <p className="text-sm text-ink-faint">Light is gathered once more for every pixel: a minute or two.</p>
          )}
          <Button
            tone="primary"
            className="mt-2 w-full"
            disabled={!ready}
            icon={view ? <ImageIcon size={14} /> : <Clapperboard size={14} />}
            onClick={render}
          >
            {view ? 'Render still' : 'Render film'}
          </Button>
          {!lit && <p className="mt-1.5 text-center text-sm text-ink-faint">Its light is still being gathered.</p>}
        </>
      )}
    </Card>
  );
}
