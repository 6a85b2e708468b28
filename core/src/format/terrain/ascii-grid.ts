import { FormatError } from '../errors.ts';
import type { ReadModel } from '../scene-model.ts';
import { terrainModel } from './heights.ts';

const MOST_CELLS = 50_000_000;

export const isAsciiGrid = (head: string) => /^\s*ncols\s+\d/i.test(head);

/**
 * Reads an ESRI ASCII grid of heights in metres.
 * Source of the layout: the format's public description (Esri, "Esri ASCII raster format").
 * @throws FormatError
 */
export function readAsciiGrid(bytes: Uint8Array, fileName: string): ReadModel {
  const text = new TextDecoder().decode(bytes);
  const header: Record<string, number> = {};
  let offset = 0;
  const line = /[ \t\r\n]*([a-z_]+)[ \t]+(\S+)[ \t]*\r?\n/giy;
  for (let match = line.exec(text); match; match = line.exec(text)) {
    header[match[1]!.toLowerCase()] = Number(match[2]);
    offset = line.lastIndex;
  }
  const damaged = (reason: string) => new FormatError('damaged', fileName, reason, 'Export the grid again.');
  const { ncols: columns, nrows: rows, cellsize, dx = cellsize, dy = cellsize } = header;
  if (!Number.isSafeInteger(columns) || !Number.isSafeInteger(rows) || columns! < 2 || rows! < 2)
    throw damaged('its header does not say how many columns and rows there are.');
  if (!(dx! > 0) || !(dy! > 0)) throw damaged('its header gives no cell size.');
  if (columns! * rows! > MOST_CELLS)
    throw new FormatError(
      'too-large',
      fileName,
      `it announces ${columns} × ${rows} heights.`,
      'Cut out the part that is shown.',
    );
  const nothing = header['nodata_value'] ?? -9999;
  const heights = new Float32Array(columns! * rows!);
  let count = 0;
  const number = /[^\s]+/gy;
  const space = /\s*/gy;
  for (;;) {
    space.lastIndex = offset;
    space.exec(text);
    number.lastIndex = space.lastIndex;
    const match = number.exec(text);
    if (!match) break;
    offset = number.lastIndex;
    const value = Number(match[0]);
    if (Number.isNaN(value)) throw damaged(`height number ${count + 1} is “${match[0].slice(0, 30)}”.`);
    if (count < heights.length) heights[count] = value === nothing ? Number.NaN : value;
    count += 1;
  }
  if (count !== heights.length)
    throw new FormatError(
      count < heights.length ? 'truncated' : 'damaged',
      fileName,
      `it announces ${columns} × ${rows} = ${heights.length} heights and holds ${count}.`,
      'Export the grid again.',
    );
  const notes: string[] = [];
  // A cell size far below a millimetre of arc is in degrees: no terrain is measured that finely in metres.
  const cell = inMetres([dx!, dy!], header['yllcorner'] ?? header['yllcenter'] ?? 0, dx! < 0.02, notes);
  return terrainModel({ columns: columns!, rows: rows!, cell, heights }, fileName, notes);
}

/** Mean length of a degree of latitude, metres (WGS 84 meridian, 10,001,965.7 m from equator to pole, over 90). */
const DEGREE = 111_132.95;

/** Cells given in degrees become metres at the grid's latitude. */
export function inMetres(
  cell: [number, number],
  latitude: number,
  degrees: boolean,
  notes: string[],
): [number, number] {
  if (!degrees) return cell;
  notes.push(`Its cells are given in degrees; they are taken as metres at latitude ${latitude.toFixed(3)}°.`);
  return [cell[0] * DEGREE * Math.cos((latitude * Math.PI) / 180), cell[1] * DEGREE];
}
