/** Where winds come from, clockwise from north, an eighth of a turn each. */
export const WINDS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'] as const;
const SPELT = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const;

const nearest = (degrees: number): number => ((Math.round(degrees / 45) % 8) + 8) % 8;

/** The wind nearest to a bearing. @param degrees clockwise from north */
export const windOf = (degrees: number): (typeof WINDS)[number] => WINDS[nearest(degrees)]!;

/** The same, spelt out. */
export const windSpelt = (degrees: number): (typeof SPELT)[number] => SPELT[nearest(degrees)]!;
