import type { Row } from '@eskovan/core/document';
import { X } from 'lucide-react';
import { useId, useState } from 'react';
import { editBody } from '../../data/edit-row.ts';
import { useProject } from '../../data/use-project.ts';
import { liveRows } from '../../data/changes.ts';
import { withoutTag, withTag } from './view-body.ts';

/** Words that a view is found by; those of other views are offered. */
export function TagsField({ row }: { row: Row<'view'> }) {
  const { tags = [] } = row.body;
  return (
    <div className="my-1 grid gap-1">
      {tags.length > 0 && (
        <ul className="flex flex-wrap gap-1" aria-label="Tags">
          {tags.map((tag) => (
            <li key={tag} className="flex items-center gap-0.5 rounded-full bg-ink/5 py-0.5 pr-0.5 pl-2 text-sm">
              <span className="max-w-40 truncate">{tag}</span>
              <button
                type="button"
                aria-label={`Take the tag ${tag} off`}
                className="flex h-6 w-6 items-center justify-center rounded-full text-ink-faint hover:text-ink"
                onClick={() => editBody('view', row, `Take “${tag}” off`, (body) => withoutTag(body, tag))}
              >
                <X size={12} />
              </button>
            </li>
          ))}
        </ul>
      )}
      <NewTag onTag={(tag) => editBody('view', row, `Tag “${tag}”`, (body) => withTag(body, tag))} />
    </div>
  );
}

/** A field for one more tag. Enter gives it. */
export function NewTag({ onTag }: { onTag: (tag: string) => void }) {
  const [typed, setTyped] = useState('');
  const list = useId();
  const { view } = useProject();
  const known = [...new Set(liveRows(view).flatMap(({ body }) => body.tags ?? []))].sort();
  const give = () => {
    const tag = typed.trim();
    if (tag) onTag(tag);
    setTyped('');
  };
  return (
    <>
      <input
        aria-label="New tag"
        placeholder="Add a tag"
        list={list}
        maxLength={40}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={give}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') give();
          if (event.key === 'Escape') setTyped('');
        }}
        className="h-7 w-full rounded-md border border-rule bg-raised px-2 placeholder:text-ink-faint focus:border-lagoon"
      />
      <datalist id={list}>
        {known.map((tag) => (
          <option key={tag} value={tag} />
        ))}
      </datalist>
    </>
  );
}
