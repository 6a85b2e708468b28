import type { Row, Sound } from '@eskovan/core/document';
import { frameTime } from '@eskovan/core/reel';
import { Music, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import { toast } from 'sonner';
import { editBody } from '../../data/edit-row.ts';
import { Button, Card, Line, NumberField, Value } from '../../kit/index.ts';
import { saidOf } from '../../worker/said.ts';
import { bringSound } from './bring-file.ts';
import { cutsToBeats } from './beats.ts';
import { LoudnessField } from './loudness-field.tsx';
import type { OpenReel } from './open-reel.ts';
import { decodeSound, type SoundFact } from './sound-facts.ts';

interface SoundCardProps {
  open: OpenReel;
  sound: { fact: SoundFact | null; failed: string | null };
}

/** Longer files are not brought in, bytes. */
const MOST = 200 * 1024 * 1024;

/** What is heard with the reel. */
export const SoundCard = memo(function SoundCard({ open, sound: { fact, failed } }: SoundCardProps) {
  const { row, rate, plan } = open;
  const { sound } = row.body;
  const [busy, setBusy] = useState(false);
  const put = (label: string, change: Partial<Sound>) =>
    editBody('reel', row, `${label} of ${row.name}`, (body) =>
      body.sound ? { ...body, sound: { ...body.sound, ...change } } : body,
    );
  const bring = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST) {
      toast.error(`${file.name} is larger than ${MOST / 1024 ** 2} MB. Bring in a shorter piece, or an MP3 of it.`);
      return;
    }
    setBusy(true);
    try {
      await decodeSound(await file.arrayBuffer());
      await putSound(row, file);
    } catch (error) {
      toast.error(saidOf(error, `${file.name} could not be read as a sound. A WAV, MP3 or OGG file would do.`));
    } finally {
      setBusy(false);
    }
  };
  const time = { unit: 's', measure: 'time', frames: Math.round(rate.num / rate.den), step: 0.1, min: 0 } as const;
  return (
    <Card title="Sound" note={sound ? (fact?.beats ? `${fact.beats.tempo.toFixed(0)} beats a minute` : '') : 'silent'}>
      {sound ? (
        <>
          <Line label="File">
            <span className="flex min-w-0 items-center gap-1">
              <span className="truncate" title={sound.fileName}>
                {sound.fileName}
              </span>
              <Button
                small
                tone="quiet"
                icon={<Trash2 size={13} />}
                aria-label="Take the sound away"
                onClick={() => editBody('reel', row, `Sound of ${row.name}`, ({ sound: _, ...body }) => body)}
              />
            </span>
          </Line>
          {failed && (
            <p role="alert" className="text-madder">
              {failed}
            </p>
          )}
          {fact && (
            <Line label="Length">
              <Value unit="s">{(fact.buffer?.duration ?? 0).toFixed(1)}</Value>
            </Line>
          )}
          <NumberField
            label="Begins in the file at"
            {...time}
            value={sound.from}
            onChange={(from) => put('Sound', { from })}
          />
          <NumberField
            label="Heard from"
            {...time}
            value={sound.start}
            max={frameTime(plan.frames, rate)}
            onChange={(start) => put('Sound', { start })}
          />
          <NumberField
            label="Swells over"
            {...time}
            max={60}
            value={sound.fadeIn}
            onChange={(fadeIn) => put('Sound', { fadeIn })}
          />
          <NumberField
            label="Dies away over"
            {...time}
            max={60}
            value={sound.fadeOut}
            onChange={(fadeOut) => put('Sound', { fadeOut })}
          />
          <LoudnessField gain={sound.gain} onGain={(gain) => put('Sound', { gain })} />
          <Button
            small
            className="mt-1"
            disabled={!fact?.beats || plan.shots.length < 2}
            title="Every cut goes to the beat that is nearest to it; the reel stays as long as it is"
            onClick={() => fact?.beats && cutsToBeats(open, fact.beats.times)}
          >
            Cuts to the beats
          </Button>
          {fact && !fact.beats && <p className="mt-1 text-sm text-ink-faint">No steady beat was found in it.</p>}
        </>
      ) : (
        <label className="inline-flex h-8 cursor-pointer items-center gap-1.5 rounded-lg border border-rule bg-raised px-3 font-medium focus-within:outline-2">
          <Music size={14} aria-hidden /> {busy ? 'Reading…' : 'Bring in a sound'}
          <input
            type="file"
            accept="audio/*,.wav,.mp3,.ogg"
            aria-label="Sound file"
            className="sr-only"
            disabled={busy}
            onChange={(event) => {
              void bring(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
      )}
    </Card>
  );
});

async function putSound(row: Row<'reel'>, file: File): Promise<void> {
  const kept = await bringSound(file);
  const sound: Sound = {
    file: kept,
    fileName: file.name.slice(0, 255),
    from: 0,
    start: 0,
    fadeIn: 0.5,
    fadeOut: 2,
    gain: 1,
  };
  editBody('reel', row, `Sound of ${row.name}`, (body) => ({ ...body, sound }));
}
