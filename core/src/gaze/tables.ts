export interface GazeTables {
  /** Continuous (unwrapped) pan angles at the stations, radians. */
  pan: Float64Array;
  /** Tilt angles, radians. */
  tilt: Float64Array;
}
