/** Paper, millimetres. */
export interface Paper {
  name: string;
  width: number;
  height: number;
}

/** A-series paper, lying (ISO 216). */
export const PAPERS: readonly Paper[] = [
  { name: 'A4', width: 297, height: 210 },
  { name: 'A3', width: 420, height: 297 },
];

/** The same paper, standing. */
export const tallPaper = ({ name, width, height }: Paper): Paper => ({
  name,
  width: Math.min(width, height),
  height: Math.max(width, height),
});

/** A rectangle on a page, millimetres from its upper left corner. */
export interface SheetArea {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where a picture of a contact sheet and its caption stand. */
export interface SheetCell {
  /** Number of the page, from 0. */
  page: number;
  picture: SheetArea;
  /** Left end of the caption’s first line, its base, and how long a line may be. */
  caption: { x: number; y: number; width: number };
}

export interface SheetLayout {
  pages: number;
  /** Where the title and the page number have their base line. */
  head: { x: number; y: number; width: number };
  /** One for each picture, in their order: rows from the top, left to right. */
  cells: SheetCell[];
}

/** Round about a page, between cells, for the title, and for the two lines of a caption, millimetres. */
const MARGIN = 12;
const GAP = 7;
const HEAD = 12;
const CAPTION = 11;
/** From a picture to the base of the first line below it. */
const FIRST_LINE = 4.6;

/**
 * Lays pictures out on pages, so many in a row and so many rows. Every picture is as large as its cell lets it be, and
 * stands on its caption.
 * @param aspects width over height of each picture
 */
export function layOutSheet(paper: Paper, columns: number, rows: number, aspects: readonly number[]): SheetLayout {
  const width = (paper.width - 2 * MARGIN - (columns - 1) * GAP) / columns;
  const height = (paper.height - 2 * MARGIN - HEAD - (rows - 1) * GAP) / rows - CAPTION;
  const perPage = columns * rows;
  return {
    pages: Math.max(1, Math.ceil(aspects.length / perPage)),
    head: { x: MARGIN, y: MARGIN + 5, width: paper.width - 2 * MARGIN },
    cells: aspects.map((aspect, i) => {
      const place = i % perPage;
      const x = MARGIN + (place % columns) * (width + GAP);
      const base = MARGIN + HEAD + Math.floor(place / columns) * (height + CAPTION + GAP) + height;
      const own = { width: Math.min(width, height * aspect), height: Math.min(height, width / aspect) };
      return {
        page: Math.floor(i / perPage),
        picture: { x, y: base - own.height, ...own },
        caption: { x, y: base + FIRST_LINE, width },
      };
    }),
  };
}
