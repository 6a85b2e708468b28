import { frameCount, frameTime } from '@eskovan/core/reel';
import { Clapperboard } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Line, Select, Value } from '../../kit/index.ts';
import { startRender } from '../shared/render-jobs.ts';
import { evenPixels, QUALITIES, SHUTTERS, SIZES } from '../shared/render-options.ts';
import { heardWith } from './film-sound.ts';
import type { OpenReel } from './open-reel.ts';
import { useSoundFact } from './sound-facts.ts';
import type { FilmParts } from './use-reel-work.ts';
import { exactLength } from './words.ts';

interface RenderReelDialogProps {
  open: OpenReel;
  film: FilmParts;
  onClose: () => void;
}

/** What to render of a reel: one film, or one for each shot. */
export function RenderReelDialog({ open, film, onClose }: RenderReelDialogProps) {
  const { project } = useProject();
  const navigate = useNavigate();
  const { plan, rate, row, shots, aspect } = open;
  const [size, setSize] = useState<(typeof SIZES)[number]['value']>('720');
  const [quality, setQuality] = useState<(typeof QUALITIES)[number]['value']>('draft');
  const [shutter, setShutter] = useState<(typeof SHUTTERS)[number]['value']>('half');
  const [files, setFiles] = useState<'one' | 'each'>('one');
  const [reading, setReading] = useState(false);
  const sound = useSoundFact((state) => state.fact);
  const { width } = SIZES.find(({ value }) => value === size)!;
  const pixels = evenPixels(width, aspect);
  const waitsForSound = row.body.sound !== undefined && !sound?.buffer;

  const render = async () => {
    setReading(true);
    const { sampleRate, channels, silent } = await heardWith(open, sound?.buffer ?? null);
    if (silent.length > 0)
      toast.info(`Silent in the film: ${silent.join(', ')}. The sound in the file could not be read.`);
    const stretches =
      files === 'one'
        ? [{ name: row.name, from: 0, frames: plan.frames }]
        : plan.shots.map((shot) => ({
            name: `${shot.index + 1} ${shots[shot.index]!.name}`.slice(0, 120),
            from: shot.start,
            frames: shot.frames,
          }));
    for (const { name, from, frames } of stretches) {
      const [first, last] = [from, from + frames].map((frame) => Math.round(frameTime(frame, rate) * sampleRate)) as [
        number,
        number,
      ];
      startRender({
        projectId: project.id,
        source: { kind: 'reel', id: row.id, name },
        order: {
          source: {
            kind: 'reel',
            ...film,
            from,
            sound: channels && { channels: channels.map((samples) => samples.slice(first, last)), sampleRate },
          },
          size: pixels,
          subframes: QUALITIES.find(({ value }) => value === quality)!.subframes,
          output: { kind: 'video', rate, frames, shutter: SHUTTERS.find(({ value }) => value === shutter)!.open },
        },
      });
    }
    onClose();
    void navigate('../renders');
  };

  return (
    <Dialog
      open
      onClose={onClose}
      title={`Render ${row.name}`}
      description="Joins, words and sound are in it. It goes on in this tab while you work on other screens."
    >
      <div className="grid gap-1">
        <Line label="Gives">
          <Select
            label="Files"
            value={files}
            options={[
              { value: 'one', label: 'One film' },
              { value: 'each', label: `A film for each of ${plan.shots.length} shots` },
            ]}
            onChange={setFiles}
          />
        </Line>
        <Line label="Size">
          <Select label="Size" value={size} options={SIZES} onChange={setSize} />
        </Line>
        <Line label="Quality">
          <Select label="Quality" value={quality} options={QUALITIES} onChange={setQuality} />
        </Line>
        <Line label="Shutter open">
          <Select label="Shutter open" value={shutter} options={SHUTTERS} onChange={setShutter} />
        </Line>
        <Line label="Length">
          <Value>{exactLength(frameCount(frameTime(plan.frames, rate), rate), rate)}</Value>
        </Line>
        <Line label="Pictures">
          <Value>
            {pixels.width} × {pixels.height}
          </Value>
        </Line>
        {waitsForSound && <p className="text-sm text-ink-faint">Its sound is still being read.</p>}
        <Button
          tone="primary"
          className="mt-2 justify-center"
          icon={<Clapperboard size={14} />}
          disabled={waitsForSound || reading || plan.frames === 0}
          onClick={() => void render()}
        >
          Render
        </Button>
      </div>
    </Dialog>
  );
}
