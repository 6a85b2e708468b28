import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { beHere, useLive } from '../data/live.ts';
import { renamePerson, usePerson } from '../data/person.ts';
import { Button, Dialog, Hint } from '../kit/index.ts';
import { STAGES } from './stages.ts';

const initials = (name: string) =>
  name
    .split(/\s+/)
    .slice(0, 2)
    .map((word) => [...word][0]?.toUpperCase() ?? '')
    .join('');

/** Who else has this project open, and in which stage; and who one is oneself. */
export function People({ projectId }: { projectId: string }) {
  const me = usePerson();
  const here = useLive((state) => state.here);
  const { pathname } = useLocation();
  const stage = STAGES.find(({ path }) => pathname.endsWith(`/${path}`))?.label ?? '';
  const [naming, setNaming] = useState(false);
  useEffect(() => beHere(projectId, stage), [projectId, stage, me]);
  const others = [
    ...new Map(
      here
        .filter((page) => page.projectId === projectId && page.person.id !== me.id)
        .map((page) => [page.person.id, page]),
    ).values(),
  ];
  return (
    <div className="flex items-center gap-1" role="group" aria-label="People here">
      {others.slice(0, 4).map(({ person, stage: where }) => (
        <Hint key={person.id} text={`${person.name} is here${where ? `, in ${where}` : ''}`}>
          <button
            type="button"
            aria-label={`${person.name} is here${where ? `, in ${where}` : ''}`}
            className="flex h-7 w-7 items-center justify-center rounded-full bg-plum text-xs font-semibold text-paper"
          >
            {initials(person.name)}
          </button>
        </Hint>
      ))}
      {others.length > 4 && <span className="text-sm text-ink-faint">+{others.length - 4}</span>}
      <Hint text={`You are ${me.name}. Press to change your name.`}>
        <button
          type="button"
          aria-label={`You are ${me.name}. Change your name`}
          className="flex h-7 w-7 items-center justify-center rounded-full border border-rule text-xs font-semibold text-ink-soft hover:border-ink-faint"
          onClick={() => setNaming(true)}
        >
          {initials(me.name)}
        </button>
      </Hint>
      <NameDialog open={naming} onClose={() => setNaming(false)} />
    </div>
  );
}

function NameDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const me = usePerson();
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    setTyped(null);
    onClose();
  };
  return (
    <Dialog open={open} onClose={done} title="Your name" description="Shown to the others beside what you do.">
      <form
        className="flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          renamePerson(typed ?? me.name);
          done();
        }}
      >
        <input
          aria-label="Your name"
          maxLength={80}
          value={typed ?? me.name}
          onChange={(event) => setTyped(event.target.value)}
          className="h-8 min-w-0 flex-1 rounded-lg border border-rule bg-raised px-2.5"
        />
        <Button tone="primary" type="submit">
          That is me
        </Button>
      </form>
    </Dialog>
  );
}
