const HALF_TURN = 180;

/** The golden angle, radians: points that follow each other by it lie apart, however many there are. */
export const GOLDEN_ANGLE = 2.399963229728653;

export const toDegrees = (radians: number): number => (radians * HALF_TURN) / Math.PI;
export const toRadians = (degrees: number): number => (degrees * Math.PI) / HALF_TURN;

/** An angle and whole turns, as near to another as it gets; radians. Without another: within half a turn of 0. */
export function nearestTurn(angle: number, near = 0): number {
  return angle + 2 * Math.PI * Math.round((near - angle) / (2 * Math.PI));
}
