import { NumberField } from './number-field.tsx';

interface PartFieldProps {
  label: string;
  /** A part of a whole, typed as so many per cent. */
  value: number;
  least?: number;
  most?: number;
  onChange: (part: number) => void;
}

/** A part of something, in per cent. */
export const PartField = ({ label, value, least = 0, most = 1, onChange }: PartFieldProps) => (
  <NumberField
    label={label}
    unit="%"
    digits={0}
    value={100 * value}
    step={5}
    min={100 * least}
    max={100 * most}
    onChange={(percent) => onChange(percent / 100)}
  />
);
