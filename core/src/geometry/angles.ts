const HALF_TURN = 180;

export const toDegrees = (radians: number): number => (radians * HALF_TURN) / Math.PI;
export const toRadians = (degrees: number): number => (degrees * Math.PI) / HALF_TURN;
