import type { Frame, Lens } from '@eskovan/core/document';
import type { Suggestion } from '@eskovan/core/suggest';
import { Check, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, useObjectUrl } from '../../kit/index.ts';
import { sizeAcross } from '../../picture/source.ts';
import { useAsidePicture } from '../../picture/use-aside-picture.ts';
import { keepSeveral } from '../shared/keep-view.ts';
import { suggestedNames, whySuggested } from './describe-suggestion.ts';
import { scoutAs, withPerspective } from './use-seen.ts';
import { useSceneIn } from '../../site/use-scene-in.ts';
import { useSuggestions } from './use-suggestions.ts';

interface SuggestDialogProps {
  lens: Lens;
  aspect: number;
  frame: Frame | undefined;
  eyeHeight: number;
  light: string | null | undefined;
  onClose: () => void;
}

/** Width of a suggested picture, pixels. */
const WIDTH = 400;

/** Views that are worth keeping, as pictures: one press keeps one. */
export function SuggestDialog({ lens, aspect, frame, eyeHeight, light, onClose }: SuggestDialogProps) {
  const document = useProject();
  // A picture without perspective stands nowhere: suggestions are seen through its lens.
  const seen: Lens = { ...withPerspective(lens), shift: [0, 0] };
  const { suggestions, failed } = useSuggestions(seen, aspect, eyeHeight, light);
  const [kept, setKept] = useState<ReadonlySet<number>>(new Set());
  const { north } = document.project.body.sun;
  const names = useMemo(() => suggestedNames(suggestions ?? [], north), [suggestions, north]);
  const keep = (which: readonly number[]) => {
    if (!suggestions) return;
    keepSeveral(
      document,
      which.length === 1 ? 'Keep a suggested view' : `Keep ${which.length} suggested views`,
      which.map((i) => ({
        name: names[i]!,
        body: { ...suggestions[i]!.camera, light: light ?? null, ...(frame && { frame }), thumbnail: null },
      })),
    );
    setKept(new Set([...kept, ...which]));
  };
  const left = suggestions?.flatMap((_, i) => (kept.has(i) ? [] : [i])) ?? [];
  return (
    <Dialog open wide onClose={onClose} title="Suggested views">
      {!suggestions && (
        <p role="status" className="py-6 text-center text-ink-soft">
          {failed
            ? 'No views could be worked out for this model. Measure it again on the Model stage, or look around by hand.'
            : 'Looking for good places to stand…'}
        </p>
      )}
      {suggestions?.length === 0 && (
        <p role="status" className="py-6 text-center text-ink-soft">
          There is no place here that is worth suggesting. Look around in the picture and keep what you like.
        </p>
      )}
      <ul className="grid grid-cols-3 gap-3">
        {suggestions?.map((suggestion, i) => (
          <Suggested
            key={i}
            {...{ suggestion, aspect, light }}
            name={names[i]!}
            kept={kept.has(i)}
            onLook={() => {
              scoutAs(suggestion.camera);
              onClose();
            }}
            onKeep={() => keep([i])}
          />
        ))}
      </ul>
      {left.length > 1 && (
        <div className="mt-4 flex justify-end">
          <Button icon={<Plus size={14} />} onClick={() => keep(left)}>
            Keep all {left.length}
          </Button>
        </div>
      )}
    </Dialog>
  );
}

interface SuggestedProps {
  suggestion: Suggestion;
  name: string;
  aspect: number;
  light: string | null | undefined;
  kept: boolean;
  onLook: () => void;
  onKeep: () => void;
}

function Suggested({ suggestion, name, aspect, light, kept, onLook, onKeep }: SuggestedProps) {
  const scene = useSceneIn(true)(light);
  const wish = useMemo(
    () => scene && { scene, ...suggestion.camera, size: sizeAcross(WIDTH, aspect) },
    [scene, suggestion, aspect],
  );
  const url = useObjectUrl(useAsidePicture(wish, true));
  return (
    <li className="grid content-start gap-1">
      <button
        type="button"
        onClick={onLook}
        aria-label={`Look at ${name}`}
        className="block w-full overflow-hidden rounded-md bg-surround"
        style={{ aspectRatio: aspect }}
      >
        {url ? (
          <img src={url} alt="" className="h-full w-full object-cover" />
        ) : (
          <span className="text-sm text-surround-ink">{scene ? 'Being drawn…' : 'Waiting for its light…'}</span>
        )}
      </button>
      <div className="flex items-start gap-2">
        <p className="min-w-0 flex-1 text-sm">
          <span className="block truncate font-medium" title={name}>
            {name}
          </span>
          <span className="text-ink-soft">{whySuggested(suggestion)}</span>
        </p>
        <Button
          small
          icon={kept ? <Check size={13} /> : <Plus size={13} />}
          disabled={kept}
          aria-label={`Keep ${name}`}
          onClick={onKeep}
        >
          {kept ? 'Kept' : 'Keep'}
        </Button>
      </div>
    </li>
  );
}
