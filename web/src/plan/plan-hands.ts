/** A press on the plan that no drawn thing took. */
export interface PlanHands {
  onPress?: (x: number, z: number) => void;
  onDrag?: (x: number, z: number) => void;
  onRelease?: (x: number, z: number) => void;
  /** The pointer moves over the plan without a button down. */
  onHover?: (x: number, z: number) => void;
  onDoublePress?: (x: number, z: number) => void;
  /** By keys: turns who stands there, counter-clockwise seen from above, radians. */
  onTurn?: (angle: number) => void;
  /** By keys: where the cursor begins. */
  from?: () => readonly [number, number] | null;
}
