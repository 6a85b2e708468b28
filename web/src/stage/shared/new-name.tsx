import { useState } from 'react';

interface NewNameProps {
  name: string;
  label: string;
  onName: (name: string) => void;
  onDone: () => void;
}

/** A name typed where it stands in a list: Enter takes it, Escape leaves it as it was. */
export function NewName({ name, label, onName, onDone }: NewNameProps) {
  const [typed, setTyped] = useState(name);
  const commit = () => {
    onName(typed);
    onDone();
  };
  return (
    <input
      autoFocus
      aria-label={label}
      maxLength={120}
      value={typed}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape') onDone();
      }}
      className="absolute inset-x-1.5 top-1 h-7 rounded-md border border-lagoon bg-raised px-1.5 font-medium"
    />
  );
}
