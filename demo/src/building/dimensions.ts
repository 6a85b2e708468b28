/**
 * The observatory in numbers. Metres; x to the east, z to the south, y up; the origin is the north-west outer corner
 * at the level of the ground.
 */
export const RISER = 0.17;
export const GOING = 0.28;
/** Three entrance risers. */
export const FLOOR = 3 * RISER;
/** Risers of the main stair. */
export const STAIR_RISERS = 19;
export const DECK = FLOOR + STAIR_RISERS * RISER;
export const DECK_THICKNESS = 0.26;

export const EAST = 24;
export const SOUTH = 12;
export const OUTER_WALL = 0.3;
export const INNER_WALL = 0.14;

/** Party lines between the rooms. */
export const HALL_WEST = 8;
export const HALL_EAST = 16;
export const WORKSHOP_NORTH = 6.4;
export const GALLERY_NORTH = 5.6;

export const EAVES = 6.05;
export const RIDGE = 8.65;
export const RIDGE_LINE = SOUTH / 2;
/** Ceiling of the low western rooms. */
export const LOW_CEILING = FLOOR + 2.95;

/** Height of the roof's underside at a depth z. */
export function roofAt(z: number): number {
  return RIDGE - ((RIDGE - EAVES) * Math.abs(z - RIDGE_LINE)) / RIDGE_LINE;
}

/** The main stair climbs north along the hall's west wall. */
export const STAIR = {
  west: HALL_WEST + INNER_WALL / 2 + 0.03,
  width: 1.15,
  /** z of the first (lowest) nosing; each further one is a going to the north. */
  foot: 10.3,
} as const;

/** z of the last nosing, which is the edge of the landing. */
export const STAIR_HEAD = STAIR.foot - (STAIR_RISERS - 1) * GOING;

/** The bridge crosses the hall from the stair's landing to the deck. */
export const BRIDGE = { north: 3.3, south: STAIR_HEAD } as const;

export const DOOR = { width: 0.9, height: 2.1 } as const;
