/** Where winds come from, clockwise from north, an eighth of a turn each. */
export const WINDS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'] as const;

/** The wind nearest to a bearing. @param degrees clockwise from north */
export const windOf = (degrees: number): (typeof WINDS)[number] => WINDS[((Math.round(degrees / 45) % 8) + 8) % 8]!;
