import type { MoveBody, Pose } from '@eskovan/core/document';
import type { PartPath } from '@eskovan/core/site';
import { create } from 'zustand';

export type Tool = 'select' | 'draw' | 'stand';

/** What is selected, shown and played just now. Nothing of it is saved; nothing of it changes the project. */
export interface Workbench {
  projectId: string | null;
  moveId: string | null;
  viewId: string | null;
  nodeId: string | null;
  modelId: string | null;
  /** The action that is being changed. */
  actionId: string | null;
  /** The chosen part of a model: its whole name, or the beginning that a group shares. */
  part: PartPath | null;
  /** Shown alone, for looking at it; nothing of it is saved. */
  alone: PartPath | null;
  /** Seconds into the selected move. */
  time: number;
  playing: boolean;
  /** The free eye, while it is away from what is selected. */
  scout: Pose | null;
  /** Index of the storey in the plan. */
  storey: number;
  tool: Tool;
  /** The next press in the picture chooses what the walk looks at. */
  aiming: boolean;
  /** A move as it is while something of it is dragged; kept when the pointer is let go. */
  draft: { moveId: string; body: MoveBody } | null;
}

const fresh: Workbench = {
  projectId: null,
  moveId: null,
  viewId: null,
  nodeId: null,
  modelId: null,
  actionId: null,
  part: null,
  alone: null,
  time: 0,
  playing: false,
  scout: null,
  storey: -1,
  tool: 'select',
  aiming: false,
  draft: null,
};

export const useWorkbench = create<Workbench>()(() => fresh);

export const workbench = {
  get: useWorkbench.getState,
  set: (change: Partial<Workbench>) => useWorkbench.setState(change),
  /** Opening a project starts with a clean table; coming back to the same one does not. */
  open(projectId: string): void {
    if (useWorkbench.getState().projectId !== projectId) useWorkbench.setState({ ...fresh, projectId });
  },
  selectMove(moveId: string | null): void {
    useWorkbench.setState({
      moveId,
      nodeId: null,
      time: 0,
      playing: false,
      scout: null,
      tool: 'select',
      aiming: false,
      draft: null,
    });
  },
  selectView(viewId: string | null): void {
    useWorkbench.setState({ viewId, scout: null, playing: false });
  },
};
