import { CircleAlert } from 'lucide-react';
import { Finder } from '../../kit/index.ts';
import { listParts } from '../../picture/client.ts';
import type { PickedSurface } from '../../picture/source.ts';
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

/** The part that was pressed in the picture, where it is still there. */
export const pressedPart = async ({ model, name }: PickedSurface): Promise<PartInfo | undefined> =>
  (await listParts())?.find((one) => one.model === model && one.name === name);

/** Says that a part is gone, and what happens without it. */
export function GonePart({ name, meanwhile }: { name: string; meanwhile: string }) {
  return (
    <p className="flex gap-2" role="status">
      <CircleAlert size={15} className="mt-0.5 shrink-0 text-madder" aria-hidden />
      <span>
        “{name}” is not among the shown parts any more. {meanwhile}; choose another object, or show it again.
      </span>
    </p>
  );
}
