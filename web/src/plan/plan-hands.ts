/** A hand is drawn to things that are so near on the screen, pixels. */
export const DRAWN = 9;

/** A press on the plan that no drawn thing took. */
export interface PlanHands {
  /** @param reach how far the hand is drawn to things, metres; 0 by keys, and while Alt is held */
  onPress?: (x: number, z: number, reach: number) => void;
  onDrag?: (x: number, z: number) => void;
  onRelease?: (x: number, z: number) => void;
  /** The pointer moves over the plan without a button down. */
  onHover?: (x: number, z: number, reach: number) => void;
  onDoublePress?: (x: number, z: number) => void;
  /** By keys: turns who stands there, counter-clockwise seen from above, radians. */
  onTurn?: (angle: number) => void;
  /** By keys: where the cursor begins. */
  from?: () => readonly [number, number] | null;
}
