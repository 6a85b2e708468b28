import type { ReelBody, Row } from '@eskovan/core/document';
import { Clapperboard, Plus } from 'lucide-react';
import { memo, useMemo } from 'react';
import { toast } from 'sonner';
import { liveRows } from '../../data/changes.ts';
import { dispatch } from '../../data/undo.ts';
import { useProject } from '../../data/use-project.ts';
import { selection, useLead } from '../../desk/selection.ts';
import { undoWithWords } from '../../desk/undo-words.ts';
import { Button, cx, Menu, NameBox } from '../../kit/index.ts';
import { editRow } from '../../data/edit-row.ts';
import { duplicateReel, makeReel, reelChanges } from './edit-reel.ts';
import { openReel } from './open-reel.ts';
import { useReelFacts } from './reel-facts.ts';
import { lengthText } from './words.ts';

/** The chosen reel, else the first. */
export function useSelectedReel(): Row<'reel'> | null {
  const { reel } = useProject();
  const lead = useLead('reel');
  const rows = liveRows(reel);
  return rows.find(({ id }) => id === lead) ?? rows[0] ?? null;
}

/** Ratios that the same shots are often wanted in as well. */
const SECOND: readonly { label: string; name: string; frame: NonNullable<ReelBody['frame']> }[] = [
  { label: 'The same shots in 9 : 16', name: 'tall', frame: { width: 9, height: 16 } },
  { label: 'The same shots in 1 : 1', name: 'square', frame: { width: 1, height: 1 } },
];

/** The reels of the project. */
export const ReelsShelf = memo(function ReelsShelf({ selected }: { selected: Row<'reel'> | null }) {
  const document = useProject();
  const measured = useReelFacts((state) => state.measured);
  const reels = liveRows(document.reel);
  const notes = useMemo(
    () =>
      Object.fromEntries(
        liveRows(document.reel).map((row) => {
          const { plan, rate, frame } = openReel(document, row);
          return [
            row.id,
            `${lengthText(plan.frames, rate)} · ${frame.width}:${frame.height} · ${plan.shots.length} shots`,
          ];
        }),
      ),
    // Lengths of moves are in the plans.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [document, measured],
  );
  const remove = (row: Row<'reel'>) => {
    dispatch(row.projectId, `Delete ${row.name}`, reelChanges(document, row));
    toast(`Deleted ${row.name}`, { action: { label: 'Undo', onClick: () => undoWithWords(row.projectId) } });
  };
  return (
    <section aria-label="Reels" className="flex h-full flex-col bg-paper">
      <header className="flex items-baseline justify-between px-3.5 pt-3 pb-1.5">
        <h2 className="font-semibold text-ink-soft">Reels</h2>
        <span className="text-ink-faint">{reels.length}</span>
      </header>
      <ul className="min-h-0 flex-1 overflow-y-auto px-2">
        {reels.map((row) => (
          <li
            key={row.id}
            className={cx(
              'group relative rounded-[9px] px-2 py-1.5',
              row.id === selected?.id ? 'bg-lagoon-wash' : 'hover:bg-ink/4',
            )}
          >
            {row.id === selected?.id ? (
              <div data-row={row.id}>
                <NameBox
                  label="Reel"
                  strong
                  most={120}
                  name={row.name}
                  onName={(name) => editRow('reel', row, `Rename ${row.name}`, { name })}
                />
                <span className="block truncate font-mono text-xs text-ink-faint">{notes[row.id]}</span>
              </div>
            ) : (
              <button
                type="button"
                data-row={row.id}
                className="block w-full text-left"
                onClick={() => selection.chooseRow('reel', row.id)}
              >
                <span className="block truncate font-medium">{row.name}</span>
                <span className="block truncate font-mono text-xs text-ink-faint">{notes[row.id]}</span>
              </button>
            )}
            <div className="absolute top-1 right-1 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100">
              <Menu
                trigger={
                  <Button small tone="quiet" icon={<Clapperboard size={13} />} aria-label={`More for ${row.name}`} />
                }
                items={() => [
                  {
                    label: 'Duplicate',
                    onSelect: () => duplicateReel(document, row, { name: `${row.name.slice(0, 110)} copy` }),
                  },
                  ...SECOND.map(({ label, name, frame }) => ({
                    label,
                    onSelect: () =>
                      duplicateReel(document, row, {
                        name: `${row.name.slice(0, 105)}, ${name}`,
                        body: { ...row.body, frame },
                      }),
                  })),
                  { label: 'Delete', danger: true, onSelect: () => remove(row) },
                ]}
              />
            </div>
          </li>
        ))}
        {reels.length === 0 && (
          <li className="p-2 text-ink-soft">No reels yet. Make one, then bring in moves and views.</li>
        )}
      </ul>
      <footer className="p-2.5 pt-1">
        <Button
          tone={reels.length === 0 ? 'primary' : 'plain'}
          className="w-full justify-center"
          icon={<Plus size={14} />}
          onClick={() => makeReel(document, reels.length === 0 ? 'Full reel' : `Reel ${reels.length + 1}`)}
        >
          New reel
        </Button>
      </footer>
    </section>
  );
});
