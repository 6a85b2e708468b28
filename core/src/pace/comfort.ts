/** A walker's comfortable limit, m/s² (common practice, no source). */
export const ACCELERATION_LIMIT = 0.5;
/** How fast that may change, m/s³: what passengers of trains and lifts are given at most (common practice, no source). */
export const JERK_LIMIT = 1.5;
