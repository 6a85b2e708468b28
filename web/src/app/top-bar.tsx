import { Moon, Redo2, Settings2, Sun, Undo2 } from 'lucide-react';
import { memo, useState } from 'react';
import { Link, NavLink } from 'react-router';
import { useUndo } from '../data/undo.ts';
import { useProject } from '../data/use-project.ts';
import { runCommand } from '../desk/commands.ts';
import { Button, cx, Hint, Mark } from '../kit/index.ts';
import { People } from './people.tsx';
import { ProjectSettings } from './project-settings.tsx';
import { SavedNote } from '../stage/shared/saved-note.tsx';
import { STAGES } from './stages.ts';
import { applyTheme, useTheme } from '../kit/theme.ts';

/** Where we are, what is saved, undo and redo. */
export function TopBar() {
  const { project } = useProject();
  return <Bar id={project.id} name={project.name} round={project.body.round} />;
}

/** It stands over everything: an edit draws of it only what that changes. */
const Bar = memo(function Bar({ id, name, round }: { id: string; name: string; round: string }) {
  const [settings, setSettings] = useState(false);
  const theme = useTheme();
  const otherTheme = theme === 'day' ? 'evening' : 'day';
  return (
    <header className="flex h-[46px] shrink-0 items-center gap-3 border-b border-rule bg-paper px-3.5">
      <Link to="/" aria-label="All projects" className="rounded-md p-0.5">
        <Mark />
      </Link>
      <div className="flex max-w-80 min-w-0 items-baseline gap-1.5">
        <h1 className="truncate text-[14px] font-semibold" title={name}>
          {name}
        </h1>
        <span className="shrink-0 text-ink-faint">/ {round}</span>
      </div>
      <nav aria-label="Stages" className="ml-2 flex gap-0.5">
        {STAGES.map((stage) => (
          <NavLink
            key={stage.path}
            to={stage.path}
            className={({ isActive }) =>
              cx(
                'rounded-lg px-3 py-1.5 font-medium transition-colors duration-150',
                isActive ? 'bg-ink text-paper' : 'text-ink-soft hover:bg-ink/5 hover:text-ink',
              )
            }
          >
            {stage.label}
          </NavLink>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-2">
        <SavedNote />
        <People projectId={id} />
        <UndoAndRedo projectId={id} />
        <Hint text={`Switch to ${otherTheme} colours`}>
          <Button
            tone="quiet"
            icon={theme === 'day' ? <Moon size={15} /> : <Sun size={15} />}
            aria-label={`Switch to ${otherTheme} colours`}
            onClick={() => applyTheme(otherTheme)}
          />
        </Hint>
        <Hint text="Project settings">
          <Button
            tone="quiet"
            icon={<Settings2 size={15} />}
            aria-label="Project settings"
            onClick={() => setSettings(true)}
          />
        </Hint>
      </div>
      <ProjectSettings open={settings} onClose={() => setSettings(false)} />
    </header>
  );
});

function UndoAndRedo({ projectId }: { projectId: string }) {
  const canUndo = useUndo((state) => (state.past[projectId]?.length ?? 0) > 0);
  const canRedo = useUndo((state) => (state.future[projectId]?.length ?? 0) > 0);
  return (
    <>
      <Button icon={<Undo2 size={14} />} disabled={!canUndo} onClick={() => runCommand('edit.undo')}>
        Undo
      </Button>
      <Button icon={<Redo2 size={14} />} disabled={!canRedo} onClick={() => runCommand('edit.redo')}>
        Redo
      </Button>
    </>
  );
}
