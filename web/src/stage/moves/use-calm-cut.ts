import type { Channel } from '@eskovan/core/track';
import type { CompiledMove } from '@eskovan/core/move';
import { useEffect, useMemo, useState } from 'react';

/** Charts and cards of a move follow a hand that shapes it no more often than this, milliseconds. */
export const CALM_EVERY = 250;
/** What has not changed for so long is at rest, milliseconds: more than a turn of what follows the hand. */
const RESTS = CALM_EVERY + 120;

/**
 * A move for its strips: what is overhead and beside it is cut anew only when the hand that shapes it rests, for that takes
 * longer than all else of a strip. Until then the section is that of a moment ago.
 * @param of whose move it is: of another one nothing is shown that is not its own
 */
export function useCalmCut(move: CompiledMove | null, of: string | null): CompiledMove | null {
  const [calm, setCalm] = useState({ move, of });
  useEffect(() => {
    const timer = setTimeout(() => setCalm({ move, of }), RESTS);
    return () => clearTimeout(timer);
  }, [move, of]);
  const cutBy = calm.of === of ? calm.move : move;
  return useMemo(() => (move && cutBy && cutBy !== move ? withCutOf(move, cutBy) : move), [move, cutBy]);
}

function withCutOf(move: CompiledMove, other: CompiledMove): CompiledMove {
  const channels = move.channels.map((channel): Channel => {
    if (!('cut' in channel)) return channel;
    const cut = () => other.channels.find(({ id }) => id === channel.id)?.cut;
    return Object.create(channel, { cut: { get: cut } }) as Channel;
  });
  // All else is asked of the move itself.
  return Object.create(move, { channels: { value: channels } }) as CompiledMove;
}
