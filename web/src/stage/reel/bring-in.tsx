import type { Row } from '@eskovan/core/document';
import { frameCount } from '@eskovan/core/reel';
import { Plus, Search } from 'lucide-react';
import { memo, useState, type DragEvent } from 'react';
import { fileUrl } from '../../data/api.ts';
import { liveRows } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { cx, Segmented } from '../../kit/index.ts';
import { KIND_LOOKS } from '../shared/kind-look.tsx';
import { lensText } from '../shared/lens-text.ts';
import { DRAGGED, shotOfRow, type Dragged } from './dragged.ts';
import { addShots, type NewShot } from './edit-reel.ts';
import type { OpenReel } from './open-reel.ts';
import { reelDesk, useReelDesk } from './reel-desk.ts';
import { useReelFacts } from './reel-facts.ts';
import { ShownFile } from './shown-file.tsx';
import { lengthText } from './words.ts';

/** From so many on a list is searched. */
const SEARCHED = 7;

/** Cards that a reel begins and ends with, to be filled in. @param name of the project @param client whom it is for */
const cardsFor = (name: string, client: string): NewShot[] => [
  {
    name: 'Opening card',
    seconds: 3,
    use: { kind: 'title', title: { heading: name, text: client, ground: 'paper', align: 'middle' } },
  },
  {
    name: 'Closing card',
    seconds: 3,
    use: { kind: 'title', title: { heading: 'Thank you', text: name, ground: 'ink', align: 'middle' } },
  },
  {
    name: 'Chapter',
    seconds: 2,
    use: { kind: 'title', title: { heading: 'Chapter', text: '', ground: 'paper', align: 'left' } },
  },
];

/** What can become a shot: moves, views, cards, and pictures and clips from files; pressed it comes last, dragged it comes where it is dropped. */
export const BringIn = memo(function BringIn({ open }: { open: OpenReel | null }) {
  const document = useProject();
  const { project } = document;
  const tab = useReelDesk((state) => state.bringIn);
  const [wanted, setWanted] = useState('');
  const rows: readonly (Row<'move'> | Row<'view'>)[] =
    tab === 'moves' ? liveRows(document.move) : tab === 'views' ? liveRows(document.view) : [];
  const typed = wanted.trim().toLowerCase();
  const shown = typed ? rows.filter(({ name }) => name.toLowerCase().includes(typed)) : rows;
  const add = (shot: NewShot | null) => open && shot && addShots(open, [shot]);
  return (
    <section aria-label="Bring in" className="flex h-full flex-col bg-paper">
      <h2 className="px-3.5 pt-2.5 pb-1.5 font-semibold text-ink-soft">Bring in</h2>
      <div className="px-2.5">
        <Segmented
          label="What to bring in"
          value={tab}
          options={[
            { value: 'moves', label: 'Moves' },
            { value: 'views', label: 'Views' },
            { value: 'cards', label: 'Cards' },
          ]}
          onChange={(bringIn) => reelDesk.set({ bringIn })}
        />
        {rows.length >= SEARCHED && (
          <label className="mt-1.5 flex h-7 items-center gap-1.5 rounded-lg border border-rule bg-raised px-2">
            <Search size={13} aria-hidden className="text-ink-faint" />
            <input
              aria-label={`Search ${tab}`}
              className="w-full bg-transparent outline-none"
              placeholder="Search"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
          </label>
        )}
      </div>
      <ul className="relative mt-1.5 min-h-0 flex-1 overflow-y-auto px-2 pb-2">
        {tab === 'cards' ? (
          <>
            {cardsFor(project.name, project.body.client).map((card) => (
              <li key={card.name}>
                <Entry
                  name={card.name}
                  note={`${card.seconds} s`}
                  disabled={!open}
                  onAdd={() => add(card)}
                  mark={<CardMark ground={card.use.kind === 'title' ? card.use.title.ground : 'paper'} />}
                />
              </li>
            ))}
            <li className="p-1.5">
              <ShownFile disabled={!open} onShot={add} />
            </li>
          </>
        ) : (
          shown.map((row) => {
            const dragged: Dragged = { kind: tab === 'moves' ? 'move' : 'view', id: row.id };
            return (
              <li key={row.id}>
                <Entry
                  name={row.name}
                  note={tab === 'moves' ? <MoveLength id={row.id} /> : lensText((row as Row<'view'>).body.lens)}
                  disabled={!open}
                  onAdd={() => add(shotOfRow(dragged, document))}
                  onDrag={(event) => {
                    event.dataTransfer.setData(DRAGGED, JSON.stringify(dragged));
                    event.dataTransfer.effectAllowed = 'copy';
                  }}
                  mark={tab === 'moves' ? <MoveMark row={row as Row<'move'>} /> : <ViewMark row={row as Row<'view'>} />}
                />
              </li>
            );
          })
        )}
        {tab !== 'cards' && rows.length === 0 && (
          <li className="p-2 text-ink-soft">
            {tab === 'moves'
              ? 'No moves yet. Draw a walk in the Moves stage first.'
              : 'No views yet. Keep one in the Views stage first.'}
          </li>
        )}
        {typed && shown.length === 0 && rows.length > 0 && (
          <li className="p-2 text-ink-soft">Nothing is called that.</li>
        )}
      </ul>
    </section>
  );
});

interface EntryProps {
  name: string;
  note: React.ReactNode;
  mark: React.ReactNode;
  disabled: boolean;
  onAdd: () => void;
  onDrag?: (event: DragEvent) => void;
}

function Entry({ name, note, mark, disabled, onAdd, onDrag }: EntryProps) {
  return (
    <button
      type="button"
      disabled={disabled}
      draggable={onDrag !== undefined && !disabled}
      onDragStart={onDrag}
      onClick={onAdd}
      aria-label={`Bring in ${name}`}
      title="Press: it becomes the last shot. Or drag it into the strip."
      className={cx(
        'group flex w-full items-center gap-2.5 rounded-[9px] p-1.5 text-left',
        disabled ? 'opacity-50' : 'hover:bg-ink/4',
      )}
    >
      {mark}
      <span className="min-w-0 flex-1">
        <span className="block truncate font-medium">{name}</span>
        <span className="block truncate font-mono text-xs text-ink-faint">{note}</span>
      </span>
      <Plus
        size={14}
        aria-hidden
        className="shrink-0 text-ink-faint opacity-0 group-hover:opacity-100 group-focus-visible:opacity-100"
      />
    </button>
  );
}

function MoveMark({ row }: { row: Row<'move'> }) {
  const { Mark } = KIND_LOOKS[row.body.kind];
  return (
    <span className="flex h-8 w-10 shrink-0 items-center justify-center rounded-md bg-desk">
      <Mark size={20} />
    </span>
  );
}

function MoveLength({ id }: { id: string }) {
  const { project } = useProject();
  const measured = useReelFacts((state) => state.measured[id]);
  return measured ? lengthText(frameCount(measured.duration, project.body.rate), project.body.rate) : 'a move';
}

function ViewMark({ row }: { row: Row<'view'> }) {
  return (
    <span className="h-8 w-14 shrink-0 overflow-hidden rounded-md bg-surround">
      {row.body.thumbnail && (
        <img src={fileUrl(row.body.thumbnail.sha256)} alt="" draggable={false} className="h-full w-full object-cover" />
      )}
    </span>
  );
}

const CardMark = ({ ground }: { ground: 'paper' | 'ink' | 'black' }) => (
  <span
    className="flex h-8 w-14 shrink-0 items-center justify-center rounded-md border border-rule text-sm font-semibold"
    style={
      ground === 'paper' ? { background: '#fbfaf6', color: '#17212b' } : { background: '#17212b', color: '#fbfaf6' }
    }
    aria-hidden
  >
    Aa
  </span>
);
