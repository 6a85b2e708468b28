import type { Key, MoveBody, Row, TrackName } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { insertKey } from '@eskovan/core/track';
import { Diamond, Trash2 } from 'lucide-react';
import { editBody } from '../../data/edit-row.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button, Card, Line, Segmented } from '../../kit/index.ts';
import { FIRST_F_NUMBER } from '../shared/focus-fields.tsx';
import { anchorFor } from './edit-items.ts';
import { editTrack } from './edit-move.ts';

/** What may change along a move besides its lens, and what it is until then. */
const TRACKS: readonly { name: TrackName; label: string; first: (body: MoveBody) => number }[] = [
  { name: 'lift', label: 'Lift', first: () => 0 },
  { name: 'roll', label: 'Roll', first: () => 0 },
  { name: 'focus', label: 'Focus', first: ({ lens }) => lens.focus ?? 4 },
  { name: 'fNumber', label: 'f-number', first: ({ lens }) => lens.fNumber ?? FIRST_F_NUMBER },
  { name: 'exposure', label: 'Exposure', first: ({ lens }) => lens.exposure ?? 0 },
  { name: 'truck', label: 'Truck', first: () => 0 },
  { name: 'pedestal', label: 'Pedestal', first: () => 0 },
  { name: 'dolly', label: 'Dolly', first: () => 0 },
  { name: 'pan', label: 'Pan', first: () => 0 },
  { name: 'tilt', label: 'Tilt', first: () => 0 },
];

/** Kinds of move whose way has a pace that others can keep. */
const PACED: readonly MoveBody['kind'][] = ['walk', 'orbit', 'glide'];

/** Lets what changes along a move keep the pace of its way, or its own. */
function setTogether(row: Row<'move'>, together: boolean): void {
  editBody('move', row, 'Pace of what changes', (body) => {
    if (body.kind !== 'walk' && body.kind !== 'orbit' && body.kind !== 'glide') return body;
    const { together: _, ...own } = body;
    return together ? { ...own, together } : own;
  });
}

/** Keys of what changes along a move: each has a strip once it has a key. */
export function OverTimeCard({ row, body, move }: { row: Row<'move'>; body: MoveBody; move: CompiledMove | null }) {
  if (!move) return null;
  const { path } = move;
  const keyed = Object.values(body.tracks ?? {}).some((keys) => keys.length > 1);
  const keyHere = (name: TrackName, first: number) => {
    const time = Math.min(workbench.get().time, move.duration);
    const channel = move.channels.find(({ track }) => track?.name === name && track.keys.length > 0);
    const value = channel ? channel.at(time) - (channel.track!.base?.(time) ?? 0) : first;
    const key: Key = { id: crypto.randomUUID(), anchor: anchorFor(body, path, time), value, ease: 'smooth' };
    editBody('move', row, 'Key', (now) => ({
      ...now,
      tracks: { ...now.tracks, [name]: insertKey(now.tracks?.[name] ?? [], key) },
      // Who pulls a focus wants to see it.
      ...(name === 'focus' && { lens: { ...now.lens, fNumber: now.lens.fNumber ?? FIRST_F_NUMBER } }),
    }));
  };
  return (
    <Card title="Over time" note="a key where the time is">
      <div className="flex flex-wrap gap-1.5">
        {TRACKS.filter(({ name }) => name !== 'lift' || body.kind === 'walk').map(({ name, label, first }) => {
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
      {PACED.includes(body.kind) && keyed && (
        <Line label="Their pace">
          <Segmented
            label="Pace of what changes"
            value={'together' in body && body.together ? 'way' : 'own'}
            options={[
              { value: 'own', label: 'Their own' },
              { value: 'way', label: 'That of the way' },
            ]}
            onChange={(value) => setTogether(row, value === 'way')}
          />
        </Line>
      )}
    </Card>
  );
}
