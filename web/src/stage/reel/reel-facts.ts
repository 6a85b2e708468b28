import type { ObjectCover, RoomCover } from '@eskovan/core/check';
import type { CutFlow, CutNote, PlannedShot, ShotSource } from '@eskovan/core/reel';
import { create } from 'zustand';
import type { OutsideCut } from '../../worker/reel.worker.ts';
import type { ShotFinding } from '../../worker/shot-findings.ts';

/** What a join does, by the shot that it leads to. */
export interface JoinFact {
  flow: CutFlow;
  notes: readonly CutNote[];
  through: readonly number[];
}

/** What workers know of the reel that is shown. All of it follows from the project: nothing of it is saved. */
interface ReelFacts {
  /** How long moves are, by their rows; null for one that has not enough of it. Those of before stay until newer ones come. */
  measured: Readonly<Record<string, ShotSource | null>>;
  /** Names of what each frame shows. */
  keys: readonly string[];
  /** The same by shot, from where the one before it has ended: they stay right while shots move along. */
  named: ReadonlyMap<string, readonly string[]>;
  /** And of the reel that it is compared with. */
  besideKeys: readonly string[];
  /** Image speeds by shot, evenly spread over it. */
  flows: Readonly<Record<string, Float32Array>>;
  joins: Readonly<Record<string, JoinFact>>;
  cover: readonly RoomCover[] | null;
  /** How long promised objects are seen, those that are in the site; null while it is looked for them. */
  objects: readonly ObjectCover[] | null;
  /** When what shots look at is outside their cut-out. */
  outside: readonly OutsideCut[];
  findings: readonly ShotFinding[];
  /** Are these of what is shown now? */
  current: boolean;
}

const NOTHING: ReelFacts = {
  measured: {},
  keys: [],
  named: new Map(),
  besideKeys: [],
  flows: {},
  joins: {},
  cover: null,
  objects: null,
  outside: [],
  findings: [],
  current: false,
};

/** Name of what a frame of a shot shows, wherever the shot lies now. */
export const keyInShot = (
  named: ReelFacts['named'],
  { id, start, overlap }: Pick<PlannedShot, 'id' | 'start' | 'overlap'>,
  frame: number,
): string | undefined => named.get(id)?.[frame - start - overlap];

export const useReelFacts = create<ReelFacts>()(() => NOTHING);
export const setFacts = useReelFacts.setState;
export const clearFacts = (): void => setFacts(NOTHING);
