import { useEdits } from '../data/edits.ts';
import { useUnfinished } from '../data/unfinished.ts';
import { commitGesture } from '../data/undo.ts';

/** Would leaving now lose something, or break something off? */
export function isUnfinished(): boolean {
  const { saved, memoryOnly } = useEdits.getState();
  // What waits in a browser that keeps it is saved by the next page; it is asked all the same, once.
  const unsaved = saved.state !== 'saved' && (saved.state !== 'aside' || memoryOnly);
  return unsaved || Object.keys(useUnfinished.getState().works).length > 0;
}

/** Asks before the page is left with something unsaved, or with a render or an import under way. */
export function watchLeaving(): void {
  window.addEventListener('beforeunload', (event) => {
    commitGesture();
    if (isUnfinished()) event.preventDefault();
  });
}
