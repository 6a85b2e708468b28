import { FormatError } from '../errors.ts';
import { textOf } from '../text/decode.ts';
import { MOST_POINTS, usable, type Drawn, type DrawnLine } from './drawn.ts';

/**
 * Points of lines as text: two or three numbers a row (x and z, or x, height and z as a first row may name them), metres;
 * an empty row begins another line. Commas, semicolons or tabs; with semicolons and tabs a comma may be the decimal sign.
 */
export function readCsvLines(bytes: Uint8Array, fileName: string): Drawn {
  const rows = textOf(bytes).split(/\r\n|\r|\n/);
  const sample = rows.slice(0, 20).join('\n');
  const separator = sample.includes(';') ? ';' : sample.includes('\t') ? '\t' : ',';
  const cells = (row: string) => row.split(separator).map((cell) => cell.trim());
  const value = (cell: string) => Number(separator === ',' ? cell : cell.replace(',', '.'));
  let order: { x: number; y: number | null; z: number } | null = null;
  const lines: DrawnLine[] = [{ name: 'Line 1', closed: false, points: [] }];
  let [unread, count] = [0, 0];
  rows.forEach((row) => {
    if (row.replaceAll(separator, '').trim() === '') {
      if (lines.at(-1)!.points.length > 0) lines.push({ name: `Line ${lines.length + 1}`, closed: false, points: [] });
      return;
    }
    const parts = cells(row);
    if (order === null) {
      order = orderOf(parts);
      if (parts.some((cell) => Number.isNaN(value(cell)))) return;
    }
    const [x, z] = [value(parts[order.x] ?? ''), value(parts[order.z] ?? '')];
    const y = order.y === null ? null : value(parts[order.y] ?? '');
    const isPoint = parts[order.x] && parts[order.z] && Number.isFinite(x) && Number.isFinite(z);
    if (!isPoint) unread += 1;
    else if ((count += 1) <= MOST_POINTS)
      lines.at(-1)!.points.push([x, y !== null && Number.isFinite(y) ? y : null, z]);
  });
  if (count > MOST_POINTS)
    throw new FormatError(
      'too-large',
      fileName,
      `it holds ${count.toLocaleString('en')} points.`,
      `Save a line of at most ${MOST_POINTS.toLocaleString('en')}.`,
    );
  const leftOut = unread > 0 ? [`${unread} ${unread === 1 ? 'row is' : 'rows are'} no place and left out.`] : [];
  return { lines: usable(lines, fileName), metresPerUnit: 1, leftOut };
}

/** Which column is what: by their names, else by how many there are. */
function orderOf(cells: readonly string[]): { x: number; y: number | null; z: number } {
  const names = cells.map((cell) => cell.toLowerCase().replace(/[^a-z]/g, ''));
  const at = (...wanted: string[]) => names.findIndex((name) => wanted.includes(name));
  const [x, y, z] = [at('x', 'xm'), at('y', 'ym', 'height', 'heightm'), at('z', 'zm')];
  if (x >= 0 && z >= 0) return { x, y: y < 0 ? null : y, z };
  // Two named x and y are a plan.
  if (x >= 0 && y >= 0) return { x, y: null, z: y };
  return cells.length > 2 ? { x: 0, y: 1, z: 2 } : { x: 0, y: null, z: 1 };
}
