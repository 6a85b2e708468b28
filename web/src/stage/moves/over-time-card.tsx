import type { Key, Row, TrackName, Walk } from '@eskovan/core/document';
import { anchorAtTime, type CompiledMove } from '@eskovan/core/move';
import { insertKey } from '@eskovan/core/track';
import { Diamond, Trash2 } from 'lucide-react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card } from '../../kit/index.ts';
import { FIRST_F_NUMBER } from '../shared/focus-fields.tsx';
import { editTrack } from './edit-move.ts';

/** What may change along a walk besides its lens, and what it is until then. */
const TRACKS: readonly { name: TrackName; label: string; first: (body: Walk) => number }[] = [
  { name: 'lift', label: 'Lift', first: () => 0 },
  { name: 'roll', label: 'Roll', first: () => 0 },
  { name: 'focus', label: 'Focus', first: ({ lens }) => lens.focus ?? 4 },
  { name: 'fNumber', label: 'f-number', first: ({ lens }) => lens.fNumber ?? FIRST_F_NUMBER },
  { name: 'exposure', label: 'Exposure', first: () => 0 },
];

/** Keys of what changes along a walk: each has a strip once it has a key. */
export function OverTimeCard({ row, body, move }: { row: Row<'move'>; body: Walk; move: CompiledMove | null }) {
  const path = move?.path;
  if (!path) return null;
  const keyHere = (name: TrackName, first: number) => {
    const time = Math.min(workbench.get().time, move.duration);
    const channel = move.channels.find(({ track }) => track?.name === name && track.keys.length > 0);
    const value = channel ? channel.at(time) - (channel.track!.base?.(time) ?? 0) : first;
    const key: Key = { id: crypto.randomUUID(), anchor: anchorAtTime(path, time), value, ease: 'smooth' };
    editBody('move', row, 'Key', (now) => ({
      ...now,
      tracks: { ...now.tracks, [name]: insertKey(now.tracks?.[name] ?? [], key) },
      // Who pulls a focus wants to see it.
      ...(name === 'focus' && { lens: { ...now.lens, fNumber: now.lens.fNumber ?? FIRST_F_NUMBER } }),
    }));
  };
  return (
    <Card title="Over time" note="a key where the walk is">
      <div className="flex flex-wrap gap-1.5">
        {TRACKS.map(({ name, label, first }) => {
          const count = body.tracks?.[name]?.length ?? 0;
          return (
            <span key={name} className="flex">
              <Button small icon={<Diamond size={12} />} onClick={() => keyHere(name, first(body))}>
                {label}
                {count > 0 && <span className="ml-1 font-mono text-xs text-ink-faint">{count}</span>}
              </Button>
              {count > 0 && (
                <Button
                  small
                  tone="quiet"
                  icon={<Trash2 size={13} />}
                  aria-label={`No ${label} keys`}
                  onClick={() => editTrack(row, `Take the ${label.toLowerCase()} keys away`, name, () => [])}
                />
              )}
            </span>
          );
        })}
      </div>
    </Card>
  );
}
