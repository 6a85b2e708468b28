import { NumberField } from '../../kit/index.ts';

/** How loud something is heard: 1 is as it came. */
export const LoudnessField = ({ gain, onGain }: { gain: number; onGain: (gain: number) => void }) => (
  <NumberField
    label="Loudness"
    unit="%"
    digits={0}
    step={5}
    min={0}
    max={400}
    value={gain * 100}
    onChange={(percent) => onGain(percent / 100)}
  />
);
