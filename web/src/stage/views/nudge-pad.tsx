import type { Pose } from '@eskovan/core/document';
import { anglesOf, orientationOf, toRadians } from '@eskovan/core/geometry';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, RotateCcw, RotateCw } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Button } from '../../kit/index.ts';
import { lookAround, slide } from '../../picture/eye.ts';

const DISTANCES = [0.01, 0.1, 1] as const;
const ANGLES = [0.5, 1, 5] as const;

function rollBy(pose: Pose, by: number): Pose {
  const { pan, tilt, roll } = anglesOf(pose.orientation);
  return { ...pose, orientation: orientationOf({ pan, tilt, roll: roll + by }) };
}

/** Moves the eye by exact steps, in the words of film: pan, tilt, roll, truck, pedestal, dolly. */
export function NudgePad({ pose, onMove }: { pose: Pose; onMove: (pose: Pose) => void }) {
  const [distance, setDistance] = useState<number>(0.1);
  const [angle, setAngle] = useState<number>(1);
  const a = toRadians(angle);
  const pair = (name: string, less: [string, ReactNode, () => Pose], more: [string, ReactNode, () => Pose]) => (
    <div role="group" aria-label={name} className="flex items-center gap-1">
      <Button
        tone="surround"
        small
        icon={less[1]}
        aria-label={`${name} ${less[0]}`}
        onClick={() => onMove(less[2]())}
      />
      <span className="w-13 text-center text-sm text-surround-soft">{name}</span>
      <Button
        tone="surround"
        small
        icon={more[1]}
        aria-label={`${name} ${more[0]}`}
        onClick={() => onMove(more[2]())}
      />
    </div>
  );
  const icon = { size: 13 };
  return (
    <div className="on-surround grid grid-cols-[repeat(4,auto)] items-center justify-start gap-x-4 gap-y-1.5 overflow-x-auto bg-surround px-3 pt-1 pb-2.5 text-surround-ink">
      {pair(
        'Pan',
        ['left', <ArrowLeft {...icon} />, () => lookAround(pose, a, 0)],
        ['right', <ArrowRight {...icon} />, () => lookAround(pose, -a, 0)],
      )}
      {pair(
        'Tilt',
        ['down', <ArrowDown {...icon} />, () => lookAround(pose, 0, -a)],
        ['up', <ArrowUp {...icon} />, () => lookAround(pose, 0, a)],
      )}
      {pair(
        'Roll',
        ['left', <RotateCcw {...icon} />, () => rollBy(pose, a)],
        ['right', <RotateCw {...icon} />, () => rollBy(pose, -a)],
      )}
      <Steps label="Step of angles" values={ANGLES} value={angle} unit="°" onChange={setAngle} />
      {pair(
        'Truck',
        ['left', <ArrowLeft {...icon} />, () => slide(pose, 0, -distance, 0)],
        ['right', <ArrowRight {...icon} />, () => slide(pose, 0, distance, 0)],
      )}
      {pair(
        'Pedestal',
        ['down', <ArrowDown {...icon} />, () => slide(pose, 0, 0, -distance)],
        ['up', <ArrowUp {...icon} />, () => slide(pose, 0, 0, distance)],
      )}
      {pair(
        'Dolly',
        ['out', <ArrowDown {...icon} />, () => slide(pose, -distance, 0, 0)],
        ['in', <ArrowUp {...icon} />, () => slide(pose, distance, 0, 0)],
      )}
      <Steps label="Step of distances" values={DISTANCES} value={distance} unit="m" onChange={setDistance} />
    </div>
  );
}

function Steps({
  label,
  values,
  value,
  unit,
  onChange,
}: {
  label: string;
  values: readonly number[];
  value: number;
  unit: string;
  onChange: (value: number) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex gap-1">
      {values.map((step) => (
        <Button
          key={step}
          tone="surround"
          small
          pressed={step === value}
          className="px-1.5 font-mono"
          onClick={() => onChange(step)}
        >
          {step}
          {unit}
        </Button>
      ))}
    </div>
  );
}
