/** Somebody who is so near to a place is there, metres: where one stands still, the last digit is nobody's way. */
const THERE = 1e-9;

/** When a station is passed first, seconds: a pace never runs backward, so halving finds it. */
export function timeAtStation(
  profile: { readonly duration: number; stationAt(time: number): number },
  station: number,
): number {
  let [low, high] = [0, profile.duration];
  for (let i = 0; i < 50; i += 1) {
    const middle = (low + high) / 2;
    if (profile.stationAt(middle) < station - THERE) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
