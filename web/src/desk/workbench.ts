import type { Bounds, Lens, PartPath, Pose } from '@eskovan/core/document';
import { create } from 'zustand';
import { selection, type How } from './selection.ts';

export type Tool = 'select' | 'draw' | 'stand';

/** What the next press in the picture means, where it is no looking around. */
export type Pressing = 'focus' | 'stand' | 'sit' | 'subject';

/** What a view is about: a part of the model. */
export interface Subject {
  model: string;
  name: string;
  bounds: Bounds;
}

/** A stretch of a move, seconds. */
export interface Round {
  from: number;
  to: number;
}

/** What is shown and played just now. Nothing of it is saved; nothing of it changes the project. */
export interface Workbench {
  projectId: string | null;
  /** The chosen part of a model: its whole name, or the beginning that a group shares. */
  part: PartPath | null;
  /** The chosen material of a model, by name. */
  material: { model: string; name: string } | null;
  /** Shown alone, for looking at it; nothing of it is saved. */
  alone: PartPath | null;
  /** Seconds into the selected move. */
  time: number;
  playing: boolean;
  /** How fast, and which way: 1 is real time, −2 twice as fast backward. */
  playRate: number;
  /** It waits for the picture of every frame: slower than life on a slow machine, but none is left out. */
  everyFrame: boolean;
  /** Somebody walks along in the picture of a walk. */
  company: boolean;
  /** Played round and round, seconds; null: all of it once. */
  round: Round | null;
  /** The free eye, while it is away from what is selected. */
  scout: Pose | null;
  /** The lens that the free eye sees through, where it is another than that of what is selected. */
  scoutLens: Lens | null;
  /** How high whoever is stood somewhere has the eyes, metres; null: as the project says. */
  eyes: number | null;
  /** Index of the storey in the plan. */
  storey: number;
  tool: Tool;
  /** The named light that the Model stage looks at; null is the project's own. */
  light: string | null;
  /** The light of what is looked at, by its name: it is computed before others. */
  lightKey: string | null;
  /** What the next press in the picture chooses. */
  aiming: Aim | null;
  /** What is chosen so is looked at for a while from the time on, not all the way. */
  forAWhile: boolean;
  /** The line for the eye that presses draw: of the whole move, or of a span by its id. */
  gazeLine: { span: string | null; begun: boolean } | null;
  pressing: Pressing | null;
  subject: Subject | null;
  /** Another focal length moves the camera, so that the subject keeps its size. */
  holding: boolean;
}

/** What a press chooses for a move: what it looks at, what it goes round, what carries it, where the line for its eye goes, along which edge it leads. */
export type Aim = 'look' | 'subject' | 'carrier' | 'line' | 'edge';

const fresh: Workbench = {
  projectId: null,
  part: null,
  material: null,
  alone: null,
  time: 0,
  playing: false,
  playRate: 1,
  everyFrame: false,
  company: false,
  round: null,
  scout: null,
  scoutLens: null,
  eyes: null,
  storey: -1,
  tool: 'select',
  light: null,
  lightKey: null,
  aiming: null,
  forAWhile: false,
  gazeLine: null,
  pressing: null,
  subject: null,
  holding: false,
};

export const useWorkbench = create<Workbench>()(() => fresh);

/** Who is back from scouting sees through the lens of before. */
const withLens = (change: Partial<Workbench>): Partial<Workbench> =>
  change.scout === null ? { ...change, scoutLens: null } : change;

export const workbench = {
  get: useWorkbench.getState,
  set: (change: Partial<Workbench>) => useWorkbench.setState(withLens(change)),
  /** Opening a project starts with a clean table; coming back to the same one does not. */
  open(projectId: string): void {
    if (useWorkbench.getState().projectId === projectId) return;
    useWorkbench.setState({ ...fresh, projectId });
    selection.clear();
  },
  selectMove(moveId: string | null, how: How = 'only', order: readonly string[] = []): void {
    selection.chooseRow('move', moveId, how, order);
    selection.chooseItem('node', '', null);
    workbench.set({ time: 0, playing: false, round: null, scout: null, tool: 'select', aiming: null });
  },
  selectView(viewId: string | null, how: How = 'only', order: readonly string[] = []): void {
    selection.chooseRow('view', viewId, how, order);
    workbench.set({ scout: null, playing: false, pressing: null });
  },
};
