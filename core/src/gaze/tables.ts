export interface GazeTables {
  /** Continuous (unwrapped) pan angles at the stations, radians. */
  pan: Float64Array;
  /** Tilt angles, radians. */
  tilt: Float64Array;
}

/** The same direction, as few turns as possible away from `near`. */
export function nearestTurn(angle: number, near: number): number {
  return angle + 2 * Math.PI * Math.round((near - angle) / (2 * Math.PI));
}
