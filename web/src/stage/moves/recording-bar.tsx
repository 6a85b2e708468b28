import { Circle, Square } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useRecording } from '../../desk/recording.ts';
import { Button } from '../../kit/index.ts';

interface RecordingBarProps {
  onKeep: () => void;
  onDrop: () => void;
  onSimulate: () => void;
}

/** Says that a live walk is recorded, for how long, and how it ends. */
export function RecordingBar({ onKeep, onDrop, onSimulate }: RecordingBarProps) {
  const slowed = useRecording((state) => state.slowed);
  const device = useRecording((state) => state.device);
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (slowed === null) return;
    const started = performance.now();
    const timer = setInterval(() => setSeconds((performance.now() - started) / 1000), 250);
    return () => clearInterval(timer);
  }, [slowed]);
  if (slowed === null) return null;
  return (
    <div className="absolute inset-x-2.5 top-2 flex flex-wrap items-center gap-1.5 rounded-lg bg-surround/90 px-2 py-1.5 text-surround-ink">
      <p role="status" className="flex min-w-0 basis-full items-center gap-2 text-sm">
        <Circle size={11} className="shrink-0 fill-madder text-madder" aria-hidden />
        <span className="truncate">
          Recording {seconds.toFixed(0)} s{slowed < 1 && ' at half speed'}
          {device ? ` by ${device.name.toLowerCase()}` : ': walk with W A S D, look by dragging'}
        </span>
      </p>
      <Button tone="surround" small pressed={device !== null} onClick={onSimulate}>
        Simulate a handheld
      </Button>
      <Button tone="surround" small icon={<Square size={11} />} onClick={onKeep}>
        Keep as a walk
      </Button>
      <Button tone="surround" small onClick={onDrop}>
        Drop
      </Button>
    </div>
  );
}
