import type { Pose } from '@eskovan/core/document';
import { anglesOf, orientationOf, toRadians } from '@eskovan/core/geometry';
import {
  ArrowDown,
  ArrowLeft,
  ArrowRight,
  ArrowUp,
  Minus,
  Plus,
  RotateCcw,
  RotateCw,
  type LucideIcon,
} from 'lucide-react';
import { memo, useRef, useState } from 'react';
import { useCommands } from '../../desk/commands.ts';
import { keysInWords } from '../../desk/keys.ts';
import { Button, useLengthUnit } from '../../kit/index.ts';
import { lookAround, slide } from '../../picture/eye.ts';

const DISTANCES = [0.01, 0.1, 1] as const;
const ANGLES = [0.1, 1, 5] as const;
/** Focal lengths are longer or shorter by this part a press. */
const LONGER = 1.05;

/** A key that repeats goes on faster, up to so many steps at once, one more every so many repeats. */
const MOST_STEPS = 8;
const REPEATS_A_STEP = 5;
/** Presses that follow each other sooner than this are a key held down, milliseconds. */
const HELD = 120;

interface NudgePadProps {
  /** The eye as it is when a nudge begins. */
  eye: () => Pose;
  onMove: (pose: Pose) => void;
  /** Goes round what the picture is about, or what is in its middle. Radians, positive to the right. */
  onRound: (angle: number) => void;
  /** Makes the lens so much longer, as a factor. */
  onLens: (factor: number) => void;
}

/** One way to nudge the camera: to one side, or to the other. */
interface Nudge {
  name: string;
  less: readonly [word: string, icon: LucideIcon, keys: string];
  more: readonly [word: string, icon: LucideIcon, keys: string];
  /** @param by steps, negative for less */
  run: (by: number) => void;
}

/** Moves the camera by exact steps, in the words of film: pan, tilt, roll, truck, pedestal, dolly; each with keys. */
export const NudgePad = memo(function NudgePad({ eye, onMove, onRound, onLens }: NudgePadProps) {
  const lengths = useLengthUnit();
  const [chosen, setDistance] = useState<number>(0.1);
  const distance = chosen * lengths.steps;
  const [angle, setAngle] = useState<number>(1);
  const a = toRadians(angle);
  const turns: Nudge[] = [
    {
      name: 'Pan',
      less: ['left', ArrowLeft, '$mod+ArrowLeft'],
      more: ['right', ArrowRight, '$mod+ArrowRight'],
      run: (by) => onMove(lookAround(eye(), -by * a, 0)),
    },
    {
      name: 'Tilt',
      less: ['down', ArrowDown, '$mod+ArrowDown'],
      more: ['up', ArrowUp, '$mod+ArrowUp'],
      run: (by) => onMove(lookAround(eye(), 0, by * a)),
    },
    {
      name: 'Roll',
      less: ['left', RotateCcw, 'Alt+Comma'],
      more: ['right', RotateCw, 'Alt+Period'],
      run: (by) => onMove(rollBy(eye(), -by * a)),
    },
    {
      name: 'Round',
      less: ['left', ArrowLeft, 'Alt+BracketLeft'],
      more: ['right', ArrowRight, 'Alt+BracketRight'],
      run: (by) => onRound(by * a),
    },
  ];
  const ways: Nudge[] = [
    {
      name: 'Truck',
      less: ['left', ArrowLeft, '$mod+Shift+ArrowLeft'],
      more: ['right', ArrowRight, '$mod+Shift+ArrowRight'],
      run: (by) => onMove(slide(eye(), 0, by * distance, 0)),
    },
    {
      name: 'Pedestal',
      less: ['down', ArrowDown, 'Alt+PageDown'],
      more: ['up', ArrowUp, 'Alt+PageUp'],
      run: (by) => onMove(slide(eye(), 0, 0, by * distance)),
    },
    {
      name: 'Dolly',
      less: ['out', ArrowDown, '$mod+Shift+ArrowDown'],
      more: ['in', ArrowUp, '$mod+Shift+ArrowUp'],
      run: (by) => onMove(slide(eye(), by * distance, 0, 0)),
    },
    {
      name: 'Lens',
      less: ['shorter', Minus, 'Alt+Minus'],
      more: ['longer', Plus, 'Alt+Equal'],
      run: (by) => onLens(LONGER ** by),
    },
  ];
  useNudgeKeys([...turns, ...ways]);
  return (
    <div className="on-surround grid grid-cols-[repeat(5,auto)] items-center justify-start gap-x-3 gap-y-1.5 overflow-x-auto bg-surround px-3 pt-1 pb-2.5 text-surround-ink">
      {turns.map((nudge) => (
        <Pair key={nudge.name} nudge={nudge} />
      ))}
      <Steps label="Step of angles" values={ANGLES} value={angle} shown={(step) => `${step}°`} onChange={setAngle} />
      {ways.map((nudge) => (
        <Pair key={nudge.name} nudge={nudge} />
      ))}
      <Steps
        label="Step of distances"
        values={DISTANCES}
        value={chosen}
        shown={(step) => `${Number((step * lengths.steps) / lengths.metres)}${lengths.name}`}
        onChange={setDistance}
      />
    </div>
  );
});

function rollBy(pose: Pose, by: number): Pose {
  const { pan, tilt, roll } = anglesOf(pose.orientation);
  return { ...pose, orientation: orientationOf({ pan, tilt, roll: roll + by }) };
}

/** Keys of all nudges; held down they gain speed. */
function useNudgeKeys(nudges: readonly Nudge[]): void {
  const last = useRef({ id: '', at: -Infinity, repeats: 0 });
  const steps = (id: string) => {
    const at = performance.now();
    const goesOn = last.current.id === id && at - last.current.at < HELD;
    last.current = { id, at, repeats: goesOn ? last.current.repeats + 1 : 0 };
    return Math.min(MOST_STEPS, 1 + Math.floor(last.current.repeats / REPEATS_A_STEP));
  };
  useCommands(
    nudges.flatMap(({ name, less, more, run }) =>
      (
        [
          [less, -1],
          [more, 1],
        ] as const
      ).map(([[word, , keys], sign]) => {
        const id = `nudge.${name}.${word}`;
        return { id, label: `${name} ${word}`, group: 'Nudges', keys, run: () => run(sign * steps(id)) };
      }),
    ),
  );
}

function Pair({ nudge: { name, less, more, run } }: { nudge: Nudge }) {
  const button = ([word, Icon, keys]: Nudge['less'], by: number) => (
    <Button
      tone="surround"
      small
      icon={<Icon size={13} />}
      aria-label={`${name} ${word}`}
      title={keysInWords(keys)}
      onClick={() => run(by)}
    />
  );
  return (
    <div role="group" aria-label={name} className="flex items-center gap-1">
      {button(less, -1)}
      <span className="w-13 text-center text-sm text-surround-soft">{name}</span>
      {button(more, 1)}
    </div>
  );
}

function Steps({
  label,
  values,
  value,
  shown,
  onChange,
}: {
  label: string;
  values: readonly number[];
  value: number;
  shown: (step: number) => string;
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
          {shown(step)}
        </Button>
      ))}
    </div>
  );
}
