import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import { cancelGesture } from '../data/undo.ts';
import { isCovered, isPress, isSingle, isTaken, isTyping } from './keys.ts';
import { chosenKeys, useKeySettings } from './key-settings.ts';

/** Something that can be done now: menus, buttons, keys, the sheet of keys and *Find a command* read the same list. */
export interface Command {
  id: string;
  /** What it does, as a button would say it. */
  label: string;
  /** Where it belongs on the sheet. */
  group: string;
  /** Keys, as `isPress` reads them. */
  keys?: string;
  /** Can it be done just now? Left out: always. */
  when?: () => boolean;
  run: () => void;
  /** Works on what is focused, so it is no use in a list of commands. */
  hidden?: boolean;
}

interface Registry {
  /** In the order in which screens brought them; of two with the same keys the later one goes first. */
  commands: readonly { current: Command }[];
}

const useRegistry = create<Registry>()(() => ({ commands: [] }));

/** Offers commands as long as the calling part of the screen is there. */
export function useCommands(commands: readonly Command[]): void {
  const refs = useRef<{ current: Command }[]>([]);
  useEffect(() => {
    // Always the newest deeds behind the same entries.
    commands.forEach((command, i) => {
      if (refs.current[i]) refs.current[i]!.current = command;
    });
  });
  const names = commands.map(({ id }) => id).join(' ');
  const newest = useRef(commands);
  newest.current = commands;
  useEffect(() => {
    const entries = newest.current.map((command) => ({ current: command }));
    refs.current = entries;
    useRegistry.setState((now) => ({ commands: [...now.commands, ...entries] }));
    return () =>
      useRegistry.setState((now) => ({ commands: now.commands.filter((entry) => !entries.includes(entry)) }));
  }, [names]);
}

export const isReady = ({ when }: Command): boolean => when?.() ?? true;

/** All commands of the screens that are there, each once. */
export function useAllCommands(): Command[] {
  const commands = useRegistry((state) => state.commands);
  return [...new Map(commands.map(({ current }) => [current.id, current])).values()];
}

/** Does a command by its name, as its button would. @returns whether it could be done */
export function runCommand(id: string): boolean {
  const command = [...useRegistry.getState().commands].reverse().find(({ current }) => current.id === id)?.current;
  if (!command || !isReady(command)) return false;
  command.run();
  return true;
}

function onKeyDown(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.isComposing || isCovered()) return;
  if (event.key === 'Escape' && cancelGesture()) {
    event.preventDefault();
    return;
  }
  const { singles, changed } = useKeySettings.getState();
  const typing = isTyping(event);
  for (const { current: command } of [...useRegistry.getState().commands].reverse()) {
    const keys = chosenKeys(command, changed);
    if (!keys || !isPress(event, keys)) continue;
    // What is typed into a field belongs to the field, undo included.
    if (typing || (isSingle(keys) && !singles) || isTaken(event) || !isReady(command)) continue;
    event.preventDefault();
    command.run();
    return;
  }
}

/** Listens for the keys of all commands; once, in the frame. */
export function useCommandKeys(): void {
  useEffect(() => {
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, []);
}
