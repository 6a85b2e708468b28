import type { CompiledMove } from '@eskovan/core/move';
import type { Block, FoundWay } from '@eskovan/core/wayfind';
import type { Vec3 } from '@eskovan/core/document';
import type { BlockedWay } from '../../worker/ground.worker.ts';

interface Told {
  way: FoundWay | BlockedWay | null;
  looking: boolean;
  /** Are other ways being looked for? */
  lookingOn?: boolean;
  failed: boolean;
  /** Is it known where one can walk? */
  walkable: boolean;
  /** What the places are called. */
  names: readonly string[];
  /** The walk along it. */
  move: CompiledMove | null;
  /** Does it stay longer than it was told to? */
  longer: boolean;
}

/** How finding a way stands, for people. */
export function wayText({ way, looking, lookingOn, failed, walkable, names, move, longer }: Told): string {
  if (!walkable) return 'Where one can walk is not known yet. It is worked out after the model has been measured.';
  if (names.length < 2) return 'Two places make a way.';
  if (looking) return 'Looking for the way…';
  if (failed)
    return 'The way could not be worked out. Measure the model again on the Model stage, or draw the path by hand.';
  if (!way) return '';
  if (!way.found) return `There is no way from ${names[way.from]} to ${names[way.to]}: ${blockText(way.block)}`;
  const seconds = move ? `${move.duration.toFixed(0)} s, ` : '';
  const near = way.clear ? '' : ' It comes nearer to something than it should: see its checks.';
  const doors = way.shut.length === 1 ? 'a closed door' : `${way.shut.length} closed doors`;
  const turns = longer ? ' It stays longer where it has to turn round.' : '';
  const shut = way.shut.length > 0 ? ` It leads through ${doors}.` : '';
  return `${way.length.toFixed(1)} m, ${seconds}${way.path.nodes.length} nodes.${near}${shut}${turns}${lookingOn ? ' Looking for other ways…' : ''}`;
}

/** What keeps one from getting there, and by how much. */
function blockText(block: Block | null): string {
  if (!block) return 'no floor leads there. Look at where one can walk on the Model stage.';
  const where = placeText(block.at);
  switch (block.reason) {
    case 'narrow':
      return `a passage ${where} is ${block.size.toFixed(2)} m wide, and ${block.needed.toFixed(2)} m are needed.`;
    case 'low':
      return `the headroom ${where} is ${block.size.toFixed(2)} m, and ${block.needed.toFixed(2)} m are needed.`;
    case 'step':
      return `a step ${where} is ${block.size.toFixed(2)} m high, and the walker takes ${block.needed.toFixed(2)} m.`;
    case 'wall':
      return `a wall stands in between ${where}.`;
    case 'gap':
      return `the floor ends ${where}, and ${gapText(block)}.`;
  }
}

const placeText = ([x, y, z]: Vec3) => `at x ${x.toFixed(1)}, z ${z.toFixed(1)}, height ${y.toFixed(1)} m`;

/** Rises from which it is said how high what leads on lies, metres. */
const WORTH_SAYING = 0.1;

function gapText({ size, rise }: { size: number; rise: number }): string {
  const higher = `${Math.abs(rise).toFixed(2)} m ${rise > 0 ? 'higher' : 'lower'}`;
  if (size < WORTH_SAYING) return `what leads on lies ${higher}`;
  return `what leads on begins ${size.toFixed(2)} m away${Math.abs(rise) < WORTH_SAYING ? '' : `, ${higher}`}`;
}
