import type { Row } from '@eskovan/core/document';
import { frameTime, timecodeOf } from '@eskovan/core/reel';
import { Download, Film, Image as ImageIcon, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { useModels } from '../../site/use-site.ts';
import { Button, Card, cx, Empty, Panels, Progress } from '../../kit/index.ts';
import { NeedsModel } from '../shared/needs-model.tsx';
import { RenderForm } from './render-form.tsx';
import { takeLabel } from '../shared/take-label.ts';
import { rateText } from '../shared/rates.ts';
import { secondsLeft } from './describe.ts';
import { dropRender, useRenderJobs, type RenderJob } from '../shared/render-jobs.ts';

/** Drafts first, finals later; every take is kept. */
export function RendersScreen() {
  const document = useProject();
  const models = useModels();
  const jobs = useRenderJobs((state) => state.jobs).filter((job) => job.projectId === document.project.id);
  const takes = [...liveRows(document.take)].sort((a, b) => b.body.number - a.body.number || b.order - a.order);
  const [chosen, setChosen] = useState<string | null>(null);
  const take = takes.find((row) => row.id === chosen) ?? takes[0] ?? null;
  if (models.length === 0) return <NeedsModel />;
  return (
    <Panels
      id="renders"
      panels={[
        {
          id: 'order',
          size: 330,
          min: 280,
          content: (
            <div className="grid h-full grid-cols-[minmax(0,1fr)] content-start gap-2.5 overflow-y-auto p-3">
              <RenderForm />
              <Queue jobs={jobs} />
            </div>
          ),
        },
        {
          id: 'takes',
          min: 400,
          content: take ? (
            <div className="flex h-full flex-col">
              <Player take={take} />
              <Gallery takes={takes} selected={take.id} onSelect={setChosen} />
            </div>
          ) : (
            <Empty title="No takes yet">
              Choose what to render at the left. Each render becomes a numbered take; none is ever overwritten.
            </Empty>
          ),
        },
      ]}
    />
  );
}

function Queue({ jobs }: { jobs: readonly RenderJob[] }) {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  if (jobs.length === 0) return null;
  return (
    <Card title="Queue" note={`${jobs.length} to go`}>
      <ul className="grid gap-2.5">
        {jobs.map((job) => (
          <li key={job.id}>
            <div className="mb-1 flex items-center justify-between gap-2">
              <span className="truncate font-medium">{job.source.name}</span>
              <Button
                small
                tone="quiet"
                icon={<X size={14} />}
                aria-label={`${job.state === 'failed' ? 'Dismiss' : 'Cancel'} ${job.source.name}`}
                onClick={() => dropRender(job.id)}
              />
            </div>
            {job.state === 'failed' ? (
              <p role="alert" className="text-madder">
                {job.message} No take was made.
              </p>
            ) : (
              <>
                <Progress label={`Rendering ${job.source.name}`} fraction={job.done / job.frames} />
                <p className="mt-1 font-mono text-xs text-ink-faint">{describeJob(job, now)}</p>
              </>
            )}
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm text-ink-faint">Renders go on in this tab while you work on other screens.</p>
    </Card>
  );
}

function describeJob(job: RenderJob, now: number): string {
  if (job.state === 'waiting') return 'waiting for its turn';
  if (job.state === 'storing') return 'storing';
  const left = secondsLeft(job, now);
  const rest = left === null ? '' : left < 90 ? ` · ${Math.ceil(left)} s left` : ` · ${Math.ceil(left / 60)} min left`;
  // A still is one frame; its light is gathered first where it is a fine one.
  if (job.order.output.kind === 'still') return `${Math.round(100 * job.done)} %${rest}`;
  return `frame ${job.done} of ${job.frames}${rest}`;
}

function Player({ take }: { take: Row<'take'> }) {
  const { body } = take;
  const url = fileUrl(body.file.sha256);
  const name = `${take.name} ${takeLabel(take)}.${body.kind === 'video' ? 'mp4' : 'png'}`.replace(/[/\\:*?"<>|]/g, ' ');
  return (
    <div className="on-surround flex min-h-0 flex-1 flex-col bg-surround text-surround-ink">
      <div className="flex min-h-0 flex-1 items-center justify-center p-4">
        {body.kind === 'video' ? (
          <video
            key={take.id}
            src={url}
            poster={body.poster ? fileUrl(body.poster.sha256) : undefined}
            controls
            loop
            className="h-full w-full object-contain"
            aria-label={`${take.name}, ${takeLabel(take)}`}
          />
        ) : (
          <img src={url} alt={`${take.name}, ${takeLabel(take)}`} className="h-full w-full object-contain" />
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 px-4 pb-3">
        <h2 className="text-lg font-semibold">
          {take.name} <span className="font-normal text-surround-soft">{takeLabel(take)}</span>
        </h2>
        <p className="font-mono text-sm text-surround-soft">
          {body.width} × {body.height}
          {body.kind === 'video' &&
            ` · ${body.frames} frames · ${timecodeOf(body.frames, body.rate)} at ${rateText(body.rate)} · ${frameTime(body.frames, body.rate).toFixed(2)} s`}
          {` · ${body.subframes} passes · ${(body.file.size / 1024 ** 2).toFixed(1)} MB`}
        </p>
        <a
          href={url}
          download={name}
          className="ml-auto inline-flex h-8 items-center gap-1.5 rounded-lg border border-surround-rule bg-surround-raised px-3 font-medium hover:border-surround-soft"
        >
          <Download size={14} aria-hidden /> Download
        </a>
      </div>
    </div>
  );
}

function Gallery({
  takes,
  selected,
  onSelect,
}: {
  takes: readonly Row<'take'>[];
  selected: string;
  onSelect: (id: string) => void;
}) {
  return (
    <section aria-label="Takes" className="h-42 shrink-0 overflow-x-auto border-t border-rule bg-desk p-3">
      <ul className="flex h-full gap-3">
        {takes.map((take) => (
          <li key={take.id} className="h-full">
            <button
              type="button"
              aria-current={take.id === selected}
              onClick={() => onSelect(take.id)}
              className={cx(
                'flex h-full w-44 flex-col overflow-hidden rounded-[10px] border bg-paper text-left',
                take.id === selected ? 'border-lagoon ring-1 ring-lagoon' : 'border-rule hover:border-ink-faint',
              )}
            >
              <span className="min-h-0 flex-1 bg-surround">
                {take.body.poster && (
                  <img src={fileUrl(take.body.poster.sha256)} alt="" className="h-full w-full object-cover" />
                )}
              </span>
              <span className="flex items-center gap-1.5 px-2 py-1.5">
                {take.body.kind === 'video' ? (
                  <Film size={13} aria-label="Film" />
                ) : (
                  <ImageIcon size={13} aria-label="Still" />
                )}
                <span className="truncate font-medium">{take.name}</span>
                <span className="ml-auto shrink-0 text-sm text-ink-faint">{takeLabel(take)}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
