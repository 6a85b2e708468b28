import { lengthText, type LengthUnit, type Pose } from '@eskovan/core/document';
import { Undo2 } from 'lucide-react';
import { Button, useLengthUnit } from '../kit/index.ts';
import { poseDistance } from './eye.ts';

interface ScoutBarProps {
  from: Pose;
  scout: Pose;
  name: string;
  onBack: () => void;
  onKeep: () => void;
  /** Absent where nothing kept may become what is seen. */
  onUpdate?: () => void;
  /** What is seen is kept beside a view, or is the first one. */
  keepLabel?: string;
  /** What else may be done with what is seen. */
  also?: readonly { label: string; run: () => void }[];
}

/** From so far away on, metres in a building, it is said. */
const AWAY = 0.05;

const away = (metres: number, degrees: number, lengths: LengthUnit): string => {
  if (metres >= AWAY * lengths.steps) return `${lengthText(metres, lengths, 1)} away from`;
  return degrees < 0.05 ? 'with another lens than' : `${degrees.toFixed(degrees < 1 ? 1 : 0)}° off`;
};

/** Says that we are only looking, how far away, and how to get back. */
export function ScoutBar({
  from,
  scout,
  name,
  onBack,
  onKeep,
  onUpdate,
  keepLabel = 'Keep view',
  also = [],
}: ScoutBarProps) {
  const { metres, degrees } = poseDistance(from, scout);
  const lengths = useLengthUnit();
  return (
    <div className="absolute inset-x-2.5 bottom-2 flex flex-wrap items-center gap-1.5 rounded-lg bg-surround/90 px-2 py-1.5 text-surround-ink">
      <p role="status" className="min-w-0 flex-1 truncate text-sm">
        Scouting {away(metres, degrees, lengths)} {name}
      </p>
      <Button tone="surround" small icon={<Undo2 size={13} />} onClick={onBack}>
        Back
      </Button>
      {onUpdate && (
        <Button tone="surround" small onClick={onUpdate}>
          Update view
        </Button>
      )}
      {also.map(({ label, run }) => (
        <Button key={label} tone="surround" small onClick={run}>
          {label}
        </Button>
      ))}
      <Button tone="surround" small onClick={onKeep}>
        {keepLabel}
      </Button>
    </div>
  );
}
