import { useEffect, useState } from 'react';
import { useProject } from '../data/use-project.ts';
import { Dialog } from '../kit/index.ts';
import { redoWithWords, undoWithWords } from './top-bar.tsx';
import { isTyping } from './use-keys.ts';

const SHEET: readonly (readonly [string, string])[] = [
  ['Space', 'Play or pause the move'],
  [', and .', 'Back and forward one frame'],
  ['W A S D or arrows', 'Walk, with the picture in focus (Shift runs)'],
  ['B', 'Back from scouting'],
  ['V', 'Keep what you see as a view'],
  ['P', 'Draw the path; Enter ends it'],
  ['C', 'Corner or smooth, with a node in focus'],
  ['Delete', 'Remove the node in focus'],
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
  ['?', 'This sheet'],
];

/** Undo, redo and the sheet of keys, everywhere in a project. */
export function Shortcuts() {
  const { project } = useProject();
  const [sheet, setSheet] = useState(false);
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        if (event.shiftKey) redoWithWords(project.id);
        else undoWithWords(project.id);
      } else if (command && event.key.toLowerCase() === 'y') {
        event.preventDefault();
        redoWithWords(project.id);
      } else if (event.key === '?') setSheet(true);
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, [project.id]);
  return (
    <Dialog open={sheet} onClose={() => setSheet(false)} title="Keys">
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-1.5">
        {SHEET.map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-mono font-medium">{key}</dt>
            <dd className="text-ink-soft">{what}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
