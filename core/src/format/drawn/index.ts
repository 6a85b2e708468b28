import { FormatError } from '../errors.ts';
import { readCsvLines } from './csv.ts';
import type { Drawn } from './drawn.ts';
import { readDxfLines } from './dxf.ts';
import { readSvgLines } from './svg.ts';

export type { Drawn, DrawnLine } from './drawn.ts';

const READERS: Readonly<Record<string, (bytes: Uint8Array, fileName: string) => Drawn>> = {
  dxf: readDxfLines,
  svg: readSvgLines,
  csv: readCsvLines,
  txt: readCsvLines,
};

/** Larger files of lines are none, bytes. */
const LARGEST = 50_000_000;

/** Lines of a DXF, an SVG or a CSV. @throws FormatError with words for people */
export function readDrawn(bytes: Uint8Array, fileName: string): Drawn {
  const read = READERS[fileName.toLowerCase().split('.').at(-1) ?? ''];
  if (!read) throw new FormatError('wrong-type', fileName, 'it is no file of lines.', 'Choose a DXF, an SVG or a CSV.');
  if (bytes.length === 0) throw new FormatError('empty', fileName, 'it is empty.', 'Save it again.');
  if (bytes.length > LARGEST)
    throw new FormatError('too-large', fileName, 'it is larger than 50 MB.', 'Save only the line to walk along.');
  return read(bytes, fileName);
}
