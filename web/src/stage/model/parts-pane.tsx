import { Search } from 'lucide-react';
import { useState } from 'react';
import { Segmented } from '../../kit/index.ts';
import { MaterialsList } from './materials-list.tsx';
import { PartsTree } from './parts-tree.tsx';

type Of = 'parts' | 'materials';

/** What the chosen model is made of, by parts or by materials. */
export function PartsPane() {
  const [of, setOf] = useState<Of>('parts');
  const [wanted, setWanted] = useState('');
  return (
    <aside aria-label="Parts" className="flex h-full flex-col bg-paper">
      <header className="px-2.5 pt-2 pb-1.5">
        <Segmented
          label="What the model is made of"
          className="flex w-full *:flex-1"
          value={of}
          options={[
            { value: 'parts', label: 'Parts' },
            { value: 'materials', label: 'Materials' },
          ]}
          onChange={(next) => {
            setOf(next);
            setWanted('');
          }}
        />
      </header>
      <label className="mx-2.5 mb-1.5 flex h-7 shrink-0 items-center gap-1.5 rounded-lg border border-rule bg-raised px-2">
        <Search size={13} aria-hidden className="text-ink-faint" />
        <input
          aria-label={of === 'parts' ? 'Search parts' : 'Search materials'}
          className="w-full min-w-0 bg-transparent outline-none"
          placeholder="Search"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
        />
      </label>
      {of === 'parts' ? (
        <PartsTree wanted={wanted} />
      ) : (
        <div className="min-h-0 flex-1 overflow-y-auto px-2 pb-2">
          <MaterialsList wanted={wanted} />
        </div>
      )}
    </aside>
  );
}
