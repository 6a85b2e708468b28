/** How fast a gaze may turn, and how fast that may change; radians a second, and a second squared. */
export interface TurnLimit {
  rate: number;
  acceleration: number;
}

/** Pan and tilt at even times; both ends included. */
interface GazeInTime {
  pan: Float64Array;
  tilt: Float64Array;
}

/**
 * Bounds a gaze in rate and acceleration: one that follows the wanted gaze as well as the bounds let it, forward in time,
 * another backward, and their mean. What is within the bounds comes through as it was; elsewhere the eye begins earlier
 * and ends later, and lags on no side. The mean of two that keep the bounds keeps them.
 * @param step seconds between two values
 * @param turn what one round adds to the pan, where the last value is the first again; null for what ends
 */
export function limitTurning(
  { pan, tilt }: GazeInTime,
  step: number,
  limit: TurnLimit,
  turn: number | null,
): GazeInTime {
  const there = follow(pan, tilt, step, limit, turn);
  const back = follow(reversed(pan), reversed(tilt), step, limit, turn === null ? null : -turn);
  const mean = (a: Float64Array, b: Float64Array) => a.map((value, i) => (value + b[b.length - 1 - i]!) / 2);
  return { pan: mean(there.pan, back.pan), tilt: mean(there.tilt, back.tilt) };
}

const reversed = (values: Float64Array) => values.slice().reverse();

/** Follows the wanted gaze forward; what goes round has gone round once before. */
function follow(
  pan: Float64Array,
  tilt: Float64Array,
  step: number,
  limit: TurnLimit,
  turn: number | null,
): GazeInTime {
  const last = pan.length - 1;
  const out = { pan: pan.slice(), tilt: tilt.slice() };
  if (last < 1) return out;
  const rounds = turn === null ? 1 : 2;
  const wanted = (i: number): [number, number] => {
    const round = Math.floor(i / last);
    // Beyond its end a gaze would go on as it was.
    if (turn === null && i > last) return [2 * pan[last]! - pan[last - 1]!, 2 * tilt[last]! - tilt[last - 1]!];
    if (turn === null) return [pan[i]!, tilt[i]!];
    return [pan[i - round * last]! + round * turn, tilt[i - round * last]!];
  };
  let [x, y] = wanted(0);
  const [x1, y1] = wanted(1);
  let [vx, vy] = shortened((x1 - x) / step, (y1 - y) / step, limit.rate);
  for (let i = 1; i <= rounds * last; i += 1) {
    const [gx, gy] = wanted(i);
    const [nx, ny] = wanted(i + 1);
    // As fast as the goal goes, and what closes the gap to it: no faster than one can still brake from beside it.
    const [tx, ty] = [(nx - gx) / step, (ny - gy) / step];
    const [ex, ey] = [gx - x - tx * step, gy - y - ty * step];
    const gap = Math.hypot(ex, ey);
    const closing = gap > 0 ? Math.min(gap / step, Math.sqrt(limit.acceleration * gap)) / gap : 0;
    const [wx, wy] = shortened(tx + ex * closing, ty + ey * closing, limit.rate);
    const [dx, dy] = shortened(wx - vx, wy - vy, limit.acceleration * step);
    vx += dx;
    vy += dy;
    x += vx * step;
    y += vy * step;
    const at = i - (rounds - 1) * last;
    if (at >= 0) {
      out.pan[at] = x - (rounds - 1) * (turn ?? 0);
      out.tilt[at] = y;
    }
  }
  return out;
}

function shortened(x: number, y: number, most: number): [number, number] {
  const length = Math.hypot(x, y);
  return length > most ? [(x * most) / length, (y * most) / length] : [x, y];
}
