import { projectCardSchema, projectBodySchema, type Change, type ProjectCard } from '@eskovan/core/document';
import { useQuery } from '@tanstack/react-query';
import { Image as ImageIcon, MoreHorizontal, Plus, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { z } from 'zod';
import { Mark } from '../../kit/mark.tsx';
import { fileUrl, request } from '../../data/api.ts';
import { making, removing } from '../../data/changes.ts';
import { sendEdit } from '../../data/door.ts';
import { newEdit, queryClient } from '../../data/edits.ts';
import { Button, Dialog, Empty, Menu } from '../../kit/index.ts';
import { DropModel } from '../shared/drop-model.tsx';
import { SavedNote } from '../shared/saved-note.tsx';
import { importModels } from '../../site/import-model.ts';

const KEY = ['projects'];

/** All commissions, newest first. */
export function ProjectsScreen() {
  const { data, error, refetch } = useQuery({
    queryKey: KEY,
    staleTime: 0,
    queryFn: ({ signal }) => request('GET', '/api/projects', { schema: z.array(projectCardSchema), signal }),
  });
  const [making, setMaking] = useState(false);
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule bg-paper px-4">
        <Mark />
        <h1 className="text-[14px] font-semibold">Eskovan</h1>
        <div className="ml-auto">
          <SavedNote />
        </div>
        <Button tone="primary" icon={<Plus size={14} />} onClick={() => setMaking(true)}>
          New project
        </Button>
      </header>
      <main className="min-h-0 flex-1 overflow-y-auto p-6">
        {error && (
          <Empty
            title="The projects could not be loaded"
            action={<Button onClick={() => void refetch()}>Try again</Button>}
          >
            {error.message}
          </Empty>
        )}
        {data?.length === 0 && (
          <Empty
            title="No projects yet"
            action={
              <Button tone="primary" icon={<Plus size={14} />} onClick={() => setMaking(true)}>
                New project
              </Button>
            }
          >
            A project holds one commission: its model, views, moves, renders and what the client said.
          </Empty>
        )}
        {data && data.length > 0 && (
          <ul className="mx-auto grid max-w-300 grid-cols-[repeat(auto-fill,minmax(290px,1fr))] gap-5">
            {data.map((card) => (
              <Card key={card.project.id} card={card} />
            ))}
          </ul>
        )}
      </main>
      <NewProject open={making} onClose={() => setMaking(false)} />
    </div>
  );
}

const some = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

function Card({ card: { project, cover, counts } }: { card: ProjectCard }) {
  const apply = async (label: string, change: Change) => {
    await sendEdit(newEdit(project.id, label, [change]));
    await queryClient.invalidateQueries({ queryKey: KEY });
  };
  const told = (done: Promise<void>) => done.catch((error: Error) => void toast.error(error.message));
  const remove = async () => {
    await apply(`Delete ${project.name}`, removing('project', project.id));
    toast(`Deleted ${project.name}`, {
      action: {
        label: 'Undo',
        onClick: () =>
          void told(apply(`Undo: Delete ${project.name}`, { op: 'restore', kind: 'project', id: project.id })),
      },
    });
  };
  return (
    <li className="group relative overflow-hidden rounded-[10px] border border-rule bg-paper transition-shadow duration-150 hover:shadow-lift">
      <Link
        to={`/project/${project.id}/${counts.model === 0 ? 'model' : 'moves'}`}
        className="block focus-visible:-outline-offset-2"
      >
        <div className="flex aspect-video items-center justify-center bg-surround text-surround-soft">
          {cover ? (
            <img src={fileUrl(cover)} alt={`A view of ${project.name}`} className="h-full w-full object-cover" />
          ) : (
            <ImageIcon size={28} strokeWidth={1.25} aria-label="No picture yet" />
          )}
        </div>
        <div className="p-3.5">
          <h2 className="truncate pr-8 text-lg font-semibold">{project.name}</h2>
          <p className="truncate text-ink-soft">
            {project.body.client || 'No client yet'} · {project.body.round}
          </p>
          <p className="mt-2 font-mono text-xs text-ink-faint">
            {counts.model === 0
              ? 'no model yet'
              : `${some(counts.view, 'view')} · ${some(counts.move, 'move')} · ${some(counts.take, 'take')}`}
          </p>
        </div>
      </Link>
      <div className="absolute right-2 bottom-13">
        <Menu
          trigger={
            <Button tone="quiet" small icon={<MoreHorizontal size={15} />} aria-label={`More for ${project.name}`} />
          }
          items={[
            {
              label: 'Delete',
              icon: <Trash2 size={13} />,
              danger: true,
              onSelect: () => void told(remove()),
            },
          ]}
        />
      </div>
    </li>
  );
}

function NewProject({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [client, setClient] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const underWay = useRef(false);
  const field = 'h-8 w-full rounded-lg border border-rule bg-raised px-2.5 hover:border-ink-faint';
  const make = async (files?: readonly File[]) => {
    const wanted = name.trim() || files?.[0]?.name.replace(/\.[^.]*$/, '').slice(0, 120) || '';
    if (wanted === '') {
      setProblem('Give the project a name, or drop its model.');
      return;
    }
    // A second press while the server thinks would make a second project.
    if (underWay.current) return;
    underWay.current = true;
    try {
      const id = crypto.randomUUID();
      const body = projectBodySchema.parse({ client });
      await sendEdit(newEdit(id, `New project ${wanted}`, [making('project', { id, name: wanted, order: 0, body })]));
      await navigate(`/project/${id}/model`);
      if (files) void importModels(id, files);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      underWay.current = false;
    }
  };
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="New project"
      description="Name it, or drop its model and start right away."
    >
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <label className="grid gap-1">
          <span className="font-medium">Name</span>
          <input
            className={field}
            value={name}
            maxLength={120}
            autoFocus
            aria-invalid={problem !== null}
            aria-describedby={problem ? 'new-project-fault' : undefined}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="grid gap-1">
          <span className="font-medium">Client</span>
          <input className={field} value={client} maxLength={120} onChange={(event) => setClient(event.target.value)} />
        </label>
        <DropModel compact onFiles={(files) => void make(files)} />
        {problem && (
          <p id="new-project-fault" role="alert" className="text-madder">
            {problem}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="primary" type="submit">
            Make project
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
