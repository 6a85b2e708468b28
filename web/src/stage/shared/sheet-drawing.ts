import { layOutSheet, type Paper, type SheetCell } from '@eskovan/core/sheet';

/** A view on a contact sheet. */
export interface SheetItem {
  /** Width over height of its picture. */
  aspect: number;
  /** Its picture; null for a view that has none yet. */
  url: string | null;
  title: string;
  /** Lens, height of the eye, place. */
  note: string;
}

export interface SheetOrder {
  paper: Paper;
  columns: number;
  rows: number;
  /** Stands at the head of every page. */
  heading: string;
  items: readonly SheetItem[];
}

const DOTS_PER_MM = 200 / 25.4;
const POINTS_PER_MM = 72 / 25.4;
/** Heights of letters, millimetres. */
const HEADING = 4.6;
const TITLE = 3.3;
const NOTE = 2.9;
const LINE = 4.2;

const INK = '#17212b';
const SOFT = '#4a5765';
const NO_PICTURE = '#dfdacb';

/** The pages of a contact sheet, as they are printed. */
export async function drawSheet(order: SheetOrder): Promise<OffscreenCanvas[]> {
  const { paper, columns, rows, heading, items } = order;
  const layout = layOutSheet(
    paper,
    columns,
    rows,
    items.map(({ aspect }) => aspect),
  );
  // What the page is set in must be there before it is drawn with.
  await Promise.all([document.fonts.load(font(TITLE, 600)), document.fonts.load(font(NOTE, 400))]);
  const pages = Array.from({ length: layout.pages }, (_, page) => {
    const canvas = new OffscreenCanvas(Math.round(paper.width * DOTS_PER_MM), Math.round(paper.height * DOTS_PER_MM));
    const pen = canvas.getContext('2d')!;
    pen.scale(DOTS_PER_MM, DOTS_PER_MM);
    pen.fillStyle = '#ffffff';
    pen.fillRect(0, 0, paper.width, paper.height);
    const { x, y, width } = layout.head;
    write(pen, heading, { x, y, width: width - 20 }, HEADING, 600, INK);
    if (layout.pages > 1) {
      pen.textAlign = 'right';
      write(pen, `${page + 1} / ${layout.pages}`, { x: x + width, y, width: 20 }, NOTE, 400, SOFT);
      pen.textAlign = 'left';
    }
    return { canvas, pen };
  });
  for (const [i, item] of items.entries()) await drawItem(pages[layout.cells[i]!.page]!.pen, layout.cells[i]!, item);
  return pages.map(({ canvas }) => canvas);
}

type Pen = OffscreenCanvasRenderingContext2D;

const font = (size: number, weight: number) => `${weight} ${size}px "Instrument Sans Variable", sans-serif`;

async function drawItem(pen: Pen, { picture, caption }: SheetCell, { url, title, note }: SheetItem): Promise<void> {
  const bitmap = url === null ? null : await pictureFrom(url);
  if (bitmap) pen.drawImage(bitmap, picture.x, picture.y, picture.width, picture.height);
  else {
    pen.fillStyle = NO_PICTURE;
    pen.fillRect(picture.x, picture.y, picture.width, picture.height);
  }
  bitmap?.close();
  write(pen, title, caption, TITLE, 600, INK);
  write(pen, bitmap ? note : `${note} · no picture yet`, { ...caption, y: caption.y + LINE }, NOTE, 400, SOFT);
}

/** A picture that cannot be had leaves its place empty, and its caption says so. */
async function pictureFrom(url: string): Promise<ImageBitmap | null> {
  const reply = await fetch(url).catch(() => null);
  return reply?.ok ? createImageBitmap(await reply.blob()).catch(() => null) : null;
}

/** A line that is cut, with dots, where it is too long. */
function write(
  pen: Pen,
  text: string,
  { x, y, width }: { x: number; y: number; width: number },
  size: number,
  weight: number,
  color: string,
): void {
  pen.font = font(size, weight);
  pen.fillStyle = color;
  let shown = text;
  const letters = [...text];
  while (letters.length > 1 && pen.measureText(shown).width > width) {
    letters.pop();
    shown = `${letters.join('').trimEnd()}…`;
  }
  pen.fillText(shown, x, y);
}

/** Pages as PNG files. */
export const sheetPng = (pages: readonly OffscreenCanvas[]): Promise<Blob[]> =>
  Promise.all(pages.map((page) => page.convertToBlob({ type: 'image/png' })));

/** Pages as one PDF, each as large as its paper. */
export async function sheetPdf(pages: readonly OffscreenCanvas[], { heading, paper }: SheetOrder): Promise<Blob> {
  const { PDFDocument } = await import('pdf-lib');
  const pdf = await PDFDocument.create();
  pdf.setTitle(heading);
  const size: [number, number] = [paper.width * POINTS_PER_MM, paper.height * POINTS_PER_MM];
  for (const page of pages) {
    const picture = await page.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
    const embedded = await pdf.embedJpg(await picture.arrayBuffer());
    pdf.addPage(size).drawImage(embedded, { x: 0, y: 0, width: size[0], height: size[1] });
  }
  // Without object streams any reader, however old, finds its pages.
  return new Blob([(await pdf.save({ useObjectStreams: false })) as Uint8Array<ArrayBuffer>], {
    type: 'application/pdf',
  });
}
