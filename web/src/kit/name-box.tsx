import { useState } from 'react';
import { cx } from './cx.ts';

interface NameBoxProps {
  /** What is named: “Storey”, “Room”. */
  label: string;
  name: string;
  onName: (name: string) => void;
  /** Characters that a name may have. */
  most?: number;
  strong?: boolean;
}

/** A name that becomes a field when it is pressed. An empty name is no name: what was there stays. */
export function NameBox({ label, name, onName, most = 80, strong }: NameBoxProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    const next = typed?.trim().slice(0, most) ?? '';
    setTyped(null);
    if (next !== '' && next !== name) onName(next);
  };
  return (
    <input
      aria-label={`${label} name: ${name}`}
      value={typed ?? name}
      maxLength={most}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
      }}
      className={cx(
        'h-6.5 w-full min-w-0 truncate rounded-md border border-transparent bg-transparent px-1 -ml-1 hover:border-rule focus:border-lagoon focus:bg-raised',
        strong ? 'font-medium' : 'text-ink-soft',
      )}
    />
  );
}
