import type { Pace, PaceShape } from '@eskovan/core/document';
import { NumberField } from '../../kit/index.ts';

/** Shapes of a pace by their names: of a camera, and of what moves before it. */
export const SHAPES: readonly { value: PaceShape; label: string }[] = [
  { value: 'soft', label: 'Soft start and stop' },
  { value: 'constant', label: 'Constant' },
  { value: 'ease both', label: 'Ease both' },
  { value: 'ease out of rest', label: 'Ease out of rest' },
  { value: 'ease to rest', label: 'Ease to rest' },
  { value: 'carry', label: 'Carry: slow in the middle' },
];

/** The slow place of a pace that carries over its cuts. */
export function CarryFields({ carry, onCarry }: { carry: Carry; onCarry: (carry: Carry) => void }) {
  const part = (label: string, value: number, least: number, change: (part: number) => Carry) => (
    <NumberField
      label={label}
      unit="%"
      value={Number((100 * value).toFixed(1))}
      step={5}
      min={100 * least}
      max={label === 'Slowest at' ? 90 : 100}
      onChange={(percent) => onCarry(change(percent / 100))}
    />
  );
  return (
    <>
      {part('Slowest at', carry.at, 0.1, (at) => ({ ...carry, at }))}
      {part('Slow is', carry.slow, 0.05, (slow) => ({ ...carry, slow }))}
    </>
  );
}
type Carry = NonNullable<Pace['carry']>;
