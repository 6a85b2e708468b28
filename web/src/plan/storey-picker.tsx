import { ChevronDown, ChevronUp } from 'lucide-react';
import { Button, Segmented, Select } from '../kit/index.ts';

/** So many storeys stand side by side; a tower has a list and steps. */
const SIDE_BY_SIDE = 5;

interface StoreyPickerProps {
  value: string;
  options: readonly { value: string; label: string; note?: string }[];
  compact: boolean;
  onChange: (value: string) => void;
}

/** Which storey a plan shows. */
export function StoreyPicker({ value, options, compact, onChange }: StoreyPickerProps) {
  if (options.length <= (compact ? SIDE_BY_SIDE - 1 : SIDE_BY_SIDE))
    return <Segmented label="Storey" value={value} options={options} onChange={onChange} />;
  const at = options.findIndex((option) => option.value === value);
  const step = (by: number) => {
    const next = options[at + by];
    if (next) onChange(next.value);
  };
  return (
    <div className="flex items-center gap-1 rounded-lg border border-rule bg-paper p-0.5">
      <Select
        label="Storey"
        value={value}
        options={[...options]
          .reverse()
          .map(({ value: own, label, note }) => ({ value: own, label: note ? `${label} ${note}` : label }))}
        onChange={onChange}
      />
      <Button
        small
        tone="quiet"
        icon={<ChevronUp size={14} />}
        aria-label="One storey up"
        disabled={at >= options.length - 1}
        onClick={() => step(1)}
      />
      <Button
        small
        tone="quiet"
        icon={<ChevronDown size={14} />}
        aria-label="One storey down"
        disabled={at <= 0}
        onClick={() => step(-1)}
      />
    </div>
  );
}
