import type { Caption, Title } from '@eskovan/core/document';

/** What can be drawn on: the canvas of a page or of a worker. */
export type Pen = OffscreenCanvasRenderingContext2D;
export interface CardSize {
  width: number;
  height: number;
}

/** Faces that cards are set in; they have to be there before something is drawn. */
export const CARD_FACE = 'Instrument Sans Variable';
const STACK = `"${CARD_FACE}", "Instrument Sans", "Noto Sans", sans-serif`;

/** The project's paper and ink, and black. */
const GROUNDS = {
  paper: { ground: '#fbfaf6', heading: '#17212b', text: '#4a5765', rule: '#0b6e75' },
  ink: { ground: '#17212b', heading: '#fbfaf6', text: '#b9c0c4', rule: '#58b3b4' },
  black: { ground: '#000000', heading: '#ffffff', text: '#c8c8c8', rule: '#c8c8c8' },
} as const;

/** What veils a picture that dips. */
export const VEILS = { paper: GROUNDS.paper.ground, black: GROUNDS.black.ground } as const;

/** Titles stay inside this part of the picture from its edges (SMPTE ST 2046-1: 90 % is safe for titles). */
const SAFE = 0.05;
/** Heights of letters, parts of the picture's shorter side. */
const HEADING = 0.085;
const TEXT = 0.042;
const CAPTION = 0.05;
const LEADING = 1.32;
/** No heading is broken into more lines. */
const MOST_LINES = 4;

const font = (size: number, weight: number) => `${weight} ${size}px ${STACK}`;

/** Draws a card with words on it, whole. @param logo stands above the words */
export function drawTitle(pen: Pen, size: CardSize, title: Title, logo: (CanvasImageSource & CardSize) | null): void {
  const { width, height } = size;
  const colours = GROUNDS[title.ground];
  const unit = Math.min(width, height);
  pen.fillStyle = colours.ground;
  pen.fillRect(0, 0, width, height);
  const side = Math.max(SAFE * width, 0.09 * unit);
  const room = width - 2 * side;
  const heading = fitted(pen, title.heading, room, unit * HEADING, 620);
  const text = fitted(pen, title.text, room, unit * TEXT, 430);
  const logoHeight = logo ? unit * 0.14 : 0;
  const gap = unit * 0.05;
  const heights = [logo ? logoHeight + gap : 0, heading.height, text.lines.length > 0 ? gap + text.height : 0];
  let y = (height - heights.reduce((sum, one) => sum + one, 0)) / 2;
  const x = title.align === 'left' ? side : width / 2;
  if (logo) {
    const logoWidth = (logoHeight * logo.width) / logo.height;
    pen.drawImage(logo, title.align === 'left' ? x : x - logoWidth / 2, y, logoWidth, logoHeight);
    y += logoHeight + gap;
  }
  pen.textAlign = title.align === 'left' ? 'left' : 'center';
  y = write(pen, heading, x, y, 620, colours.heading);
  if (text.lines.length === 0) return;
  if (heading.lines.length > 0) {
    pen.fillStyle = colours.rule;
    const long = unit * 0.09;
    pen.fillRect(title.align === 'left' ? x : x - long / 2, y + gap * 0.45, long, Math.max(1, unit * 0.004));
  }
  write(pen, text, x, y + gap, 430, colours.text);
}

/** Words over a picture: a caption, or a number in its corner. */
export interface Words {
  text: string;
  place: Caption['place'] | 'corner';
}

/** Draws words over a picture, on a plate of their own so that they can be read on anything. */
export function drawWords(pen: Pen, { width, height }: CardSize, { text, place }: Words, part: number): void {
  const unit = Math.min(width, height);
  const third = place === 'lower third';
  const corner = place === 'corner';
  const block = fitted(pen, text, width * (third ? 0.55 : 0.8), unit * CAPTION, 560);
  const pad = unit * 0.028;
  const wide = Math.max(...block.lines.map((line) => measure(pen, line, block.size, 560)), 1) + 2 * pad;
  const high = block.height + 1.4 * pad;
  const edge = unit * SAFE;
  const left = third ? edge * 1.4 : corner ? width - wide - edge * 1.4 : (width - wide) / 2;
  const top = place === 'head' || corner ? edge : height - high - (third ? edge * 2.2 : edge);
  pen.save();
  pen.globalAlpha = part;
  pen.fillStyle = 'rgb(251 250 246 / 0.9)';
  pen.beginPath();
  pen.roundRect(left, top, wide, high, unit * 0.012);
  pen.fill();
  if (third) {
    pen.fillStyle = GROUNDS.paper.rule;
    pen.fillRect(left, top + high * 0.16, Math.max(2, unit * 0.007), high * 0.68);
  }
  pen.textAlign = third ? 'left' : 'center';
  write(pen, block, third ? left + pad : width / 2, top + 0.7 * pad, 560, GROUNDS.paper.heading);
  pen.restore();
}

interface Block {
  lines: string[];
  size: number;
  height: number;
}

function measure(pen: Pen, text: string, size: number, weight: number): number {
  pen.font = font(size, weight);
  return pen.measureText(text).width;
}

/** Words in as many lines as they need; smaller where they need too many, or one of them is too long. */
function fitted(pen: Pen, text: string, room: number, wanted: number, weight: number): Block {
  const paragraphs = text.split(/\r\n|\r|\n/).map((line) => line.trim());
  if (paragraphs.every((line) => line === '')) return { lines: [], size: wanted, height: 0 };
  for (let size = wanted; ; size *= 0.9) {
    const lines = paragraphs.flatMap((line) => broken(pen, line, room, size, weight));
    const fits = lines.every((line) => measure(pen, line, size, weight) <= room);
    if ((fits && lines.length <= MOST_LINES + paragraphs.length) || size < wanted / 4)
      return { lines, size, height: lines.length * size * LEADING };
  }
}

function broken(pen: Pen, paragraph: string, room: number, size: number, weight: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of paragraph.split(/\s+/)) {
    const longer = line ? `${line} ${word}` : word;
    if (line && measure(pen, longer, size, weight) > room) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return [...lines, line];
}

/** @returns where the next thing may begin */
function write(pen: Pen, { lines, size, height }: Block, x: number, y: number, weight: number, colour: string): number {
  pen.font = font(size, weight);
  pen.fillStyle = colour;
  pen.textBaseline = 'middle';
  lines.forEach((line, i) => pen.fillText(line, x, y + (i + 0.5) * size * LEADING));
  return y + height;
}
