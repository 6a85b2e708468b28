import { Finder } from '../../kit/index.ts';
import { useParts } from '../../site/use-parts.ts';
import type { PartInfo } from '../../worker/parts.ts';

/** Offered at once; more letters narrow them down. */
const MOST = 30;

/** Finds a part by its name. */
export function FindPart({ onPart }: { onPart: (part: PartInfo) => void }) {
  const parts = useParts();
  return (
    <div className="mt-1.5">
      <Finder
        label="Find an object"
        listLabel="Objects"
        placeholder="Find an object"
        find={(typed) =>
          parts.filter(({ name }) => name.toLowerCase().includes(typed.trim().toLowerCase())).slice(0, MOST)
        }
        keyOf={({ model, name }) => `${model} ${name}`}
        onChoose={onPart}
        nothing="No object is called that."
        className="max-h-40"
      >
        {({ name }) => (
          <span className="truncate" title={name}>
            {name}
          </span>
        )}
      </Finder>
    </div>
  );
}
