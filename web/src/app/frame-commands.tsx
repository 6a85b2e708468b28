import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../data/use-project.ts';
import { useCommandKeys, useCommands } from '../desk/commands.ts';
import { redoWithWords, undoWithWords } from '../desk/undo-words.ts';
import { FindCommand } from './find-command.tsx';
import { KeySheet } from './key-sheet.tsx';
import { STAGES } from './stages.ts';

/** What can be done everywhere in a project, with the sheet of keys and the search for commands. */
export function FrameCommands() {
  const { project } = useProject();
  const navigate = useNavigate();
  const [open, setOpen] = useState<'keys' | 'commands' | null>(null);
  useCommandKeys();
  useCommands([
    { id: 'edit.undo', label: 'Undo', group: 'Edits', keys: '$mod+z', run: () => undoWithWords(project.id) },
    {
      id: 'edit.redo',
      label: 'Redo',
      group: 'Edits',
      keys: '$mod+Shift+z $mod+y',
      run: () => redoWithWords(project.id),
    },
    { id: 'frame.find', label: 'Find a command', group: 'Help', keys: '$mod+k', run: () => setOpen('commands') },
    { id: 'frame.keys', label: 'All keys', group: 'Help', keys: 'Shift+? ?', run: () => setOpen('keys') },
    ...STAGES.map(({ path, label }) => ({
      id: `stage.${path}`,
      label: `Go to ${label}`,
      group: 'Stages',
      run: () => void navigate(`/project/${project.id}/${path}`),
    })),
  ]);
  const close = () => setOpen(null);
  return (
    <>
      <KeySheet open={open === 'keys'} onClose={close} />
      <FindCommand open={open === 'commands'} onClose={close} />
    </>
  );
}
