/** What a part's name says it is, and how large such things are. All common practice, no source; metres. */
export interface KnownSize {
  name: RegExp;
  /** How high it is. */
  height?: readonly [number, number];
  /** Its largest extent. */
  largest?: readonly [number, number];
}

export const KNOWN_SIZES: readonly KnownSize[] = [
  { name: /door|gate/i, height: [1.85, 3] },
  { name: /window|glazing/i, height: [0.4, 3.2] },
  { name: /wall|facade|partition/i, height: [2, 12] },
  { name: /floor|slab|ceiling|deck|storey|level/i, largest: [2, 120] },
  { name: /roof/i, largest: [3, 150] },
  { name: /stair|step/i, height: [0.12, 6] },
  { name: /chair|stool|seat/i, height: [0.35, 1.3] },
  { name: /table|desk|bench/i, height: [0.35, 1.15], largest: [0.4, 5] },
  { name: /sofa|couch|bed\b/i, largest: [1.2, 3] },
  { name: /shelf|cupboard|cabinet/i, height: [0.3, 2.6] },
  { name: /lamp|lantern/i, largest: [0.1, 2.2] },
  { name: /cup|mug|glass\b/i, height: [0.05, 0.2] },
  { name: /bottle|vase|kettle|pot\b|jug/i, height: [0.1, 0.6] },
  { name: /ring\b|jewel|stone\b/i, largest: [0.004, 0.06] },
  { name: /watch|phone|mouse|pen\b|knob/i, largest: [0.01, 0.3] },
  { name: /camera|speaker|radio|shoe|toy|clock/i, largest: [0.04, 0.6] },
  { name: /bicycle|scooter/i, largest: [1, 2.2] },
  { name: /\bcar\b|van\b/i, largest: [3, 6.5] },
  { name: /person|figure|man\b|woman/i, height: [1.4, 2.1] },
  { name: /tree/i, height: [2, 30] },
  { name: /house|villa|cabin|hut/i, largest: [3, 40] },
  { name: /tower|mast/i, height: [12, 400] },
  { name: /terrain|landscape|ground\b|hill|island/i, largest: [30, 30_000] },
  { name: /room\b|kitchen|bath|hall\b|flat\b|apartment/i, largest: [2, 30] },
];

/** How things of a name lie in space: which way is up shows in them. */
export type Pose = 'lies' | 'stands' | 'is tall';

const POSES: readonly [RegExp, Pose][] = [
  [/\b(leg|column|post|pillar|chimney|mast|tower|trunk)s?\b/i, 'is tall'],
  [/\b(wall|facade|partition|door|window|back|backrest)s?\b/i, 'stands'],
  [/\b(floor|slab|ceiling|deck|seat|tabletop|top|plate|terrain|landscape|ground|rug|carpet)s?\b/i, 'lies'],
];

/** The words of the pieces of a name, the last piece first. */
const pieces = (name: string) =>
  name
    .split(' / ')
    .reverse()
    .map((piece) => piece.replace(/([a-z])([A-Z])/g, '$1 $2').replaceAll(/[_\-.0-9]+/g, ' '));

/** What a name says about a size; null where it says nothing. The last of its groups that is known counts. */
export function knownSize(name: string): KnownSize | null {
  for (const words of pieces(name)) {
    const known = KNOWN_SIZES.find((size) => size.name.test(words));
    if (known) return known;
  }
  return null;
}

/** What a name says about the way something lies; null where it says nothing. */
export function knownPose(name: string): Pose | null {
  for (const words of pieces(name)) for (const [pattern, pose] of POSES) if (pattern.test(words)) return pose;
  return null;
}
