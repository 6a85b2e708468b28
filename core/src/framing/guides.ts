/** Lines over a picture that help to compose it. */
export const GUIDES = ['none', 'thirds', 'golden', 'diagonals', 'centre'] as const;
export type Guide = (typeof GUIDES)[number];

/** Ends of a line, parts of the picture's width and height, from its upper left corner. */
export type GuideLine = readonly [x1: number, y1: number, x2: number, y2: number];

const GOLDEN = (3 - Math.sqrt(5)) / 2;

/** Lines at two places across and down. */
const across = (...at: number[]): GuideLine[] =>
  at.flatMap((part): GuideLine[] => [
    [part, 0, part, 1],
    [0, part, 1, part],
  ]);

/**
 * The lines of a guide. Diagonals are the two of the picture, and from each other corner the one that meets them squarely
 * (any handbook of composition).
 * @param aspect width over height of the picture
 */
export function guideLines(guide: Guide, aspect: number): readonly GuideLine[] {
  switch (guide) {
    case 'none':
      return [];
    case 'thirds':
      return across(1 / 3, 2 / 3);
    case 'golden':
      return across(GOLDEN, 1 - GOLDEN);
    case 'centre':
      return across(0.5);
    case 'diagonals':
      return [[0, 0, 1, 1], [0, 1, 1, 0], ...squareDiagonals(aspect)];
  }
}

/** From the corners beside a diagonal, the lines that meet it at a right angle, as far as it. */
function squareDiagonals(aspect: number): GuideLine[] {
  // The foot of the corner (1, 0) on the diagonal from (0, 0) to (1, 1), in a picture aspect wide and 1 high.
  const foot = aspect ** 2 / (aspect ** 2 + 1);
  return [
    [1, 0, foot, foot],
    [0, 1, 1 - foot, 1 - foot],
    [0, 0, 1 - foot, foot],
    [1, 1, foot, 1 - foot],
  ];
}

/** A rectangle within a picture, parts of its width and height. */
export interface PictureArea {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * Areas that every screen shows: action within 93 %, titles within 90 % of width and height. Sources, from memory: SMPTE
 * ST 2046-1 (safe action 93 %, safe title 90 %), EBU R 95 (margins of 3.5 % and 5 %): they agree.
 */
export const SAFE_AREAS = { action: 0.93, title: 0.9 } as const;

/** The middle of a picture, so large a part of it in both directions. */
export const middleArea = (part: number): PictureArea => ({
  x: (1 - part) / 2,
  y: (1 - part) / 2,
  width: part,
  height: part,
});

/** The largest area of another ratio in the middle of a picture. Both are width over height. */
export function cutOut(aspect: number, inner: number): PictureArea {
  const width = Math.min(1, inner / aspect);
  const height = Math.min(1, aspect / inner);
  return { x: (1 - width) / 2, y: (1 - height) / 2, width, height };
}
