import { XMLParser, XMLValidator } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { FormatError } from '../errors.ts';
import { textOf } from '../text/decode.ts';
import { usable, type Drawn, type DrawnLine } from './drawn.ts';

/** Curves are drawn by so many straight pieces. */
const PIECES = 16;

interface Element {
  [name: string]: unknown;
  ':@'?: Record<string, string>;
}
/** What is drawn only where something else uses it. */
const UNSEEN = new Set(['defs', 'clipPath', 'mask', 'pattern', 'marker', 'symbol']);
const ADVICE = 'Save it again as SVG.';

/** Lines, polylines, polygons, rectangles and paths of a picture; down the picture is down the plan. */
export function readSvgLines(bytes: Uint8Array, fileName: string): Drawn {
  const text = textOf(bytes);
  if (XMLValidator.validate(text) !== true) throw new FormatError('damaged', fileName, 'it is no whole SVG.', ADVICE);
  const parser = new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '' });
  const lines: DrawnLine[] = [];
  let unread = 0;
  const visit = (elements: readonly Element[], transforms: readonly string[]): void => {
    for (const element of elements) {
      const name = Object.keys(element).find((key) => key !== ':@');
      if (!name || UNSEEN.has(name)) continue;
      const attributes = element[':@'] ?? {};
      const own = attributes['transform'] ? [...transforms, attributes['transform']] : transforms;
      const path = pathOf(name, attributes);
      if (path !== null) {
        const called = attributes['id'] ?? `Line ${lines.length + 1}`;
        const found = linesOf(path, own);
        if (found === null) unread += 1;
        else found.forEach((line) => lines.push({ ...line, name: called }));
      }
      if (Array.isArray(element[name])) visit(element[name] as Element[], own);
    }
  };
  visit(parser.parse(text) as Element[], []);
  const leftOut = unread > 0 ? [`${unread} ${unread === 1 ? 'path' : 'paths'} could not be read.`] : [];
  return { lines: usable(lines, fileName), metresPerUnit: null, leftOut };
}

/** What an element draws, as path data; null for what draws no line. */
function pathOf(name: string, attributes: Readonly<Record<string, string>>): string | null {
  const number = (key: string) => Number.parseFloat(attributes[key] ?? '0');
  const [x, y, width, height] = ['x', 'y', 'width', 'height'].map(number) as [number, number, number, number];
  switch (name) {
    case 'path':
      return attributes['d'] ?? null;
    case 'line':
      return `M${number('x1')} ${number('y1')}L${number('x2')} ${number('y2')}`;
    case 'polyline':
      return `M${attributes['points'] ?? ''}`;
    case 'polygon':
      return `M${attributes['points'] ?? ''}Z`;
    case 'rect':
      return `M${x} ${y}h${width}v${height}h${-width}Z`;
    default:
      return null;
  }
}

/** Every unbroken line of a path, where its transforms put it; null for path data that cannot be read. */
function linesOf(data: string, transforms: readonly string[]): Pick<DrawnLine, 'points' | 'closed'>[] | null {
  const path = [...transforms].reverse().reduce((now, transform) => now.transform(transform), svgpath(data));
  if ('err' in path && path.err) return null;
  const lines: { points: DrawnLine['points']; closed: boolean }[] = [];
  const curve = (points: readonly (readonly [number, number])[]) => {
    for (let k = 1; k <= PIECES; k += 1) lines.at(-1)!.points.push(bezier(points, k / PIECES));
  };
  path
    .abs()
    .unarc()
    .unshort()
    .iterate((segment, _index, x, y) => {
      const v = segment.slice(1) as number[];
      const kind = segment[0];
      if (kind === 'M') lines.push({ points: [[v[0]!, null, v[1]!]], closed: false });
      else if (lines.length === 0) return;
      else if (kind === 'L') lines.at(-1)!.points.push([v[0]!, null, v[1]!]);
      else if (kind === 'H') lines.at(-1)!.points.push([v[0]!, null, y]);
      else if (kind === 'V') lines.at(-1)!.points.push([x, null, v[0]!]);
      else if (kind === 'C')
        curve([
          [x, y],
          [v[0]!, v[1]!],
          [v[2]!, v[3]!],
          [v[4]!, v[5]!],
        ]);
      else if (kind === 'Q')
        curve([
          [x, y],
          [v[0]!, v[1]!],
          [v[2]!, v[3]!],
        ]);
      else if (kind === 'Z' || kind === 'z') lines.at(-1)!.closed = true;
    });
  return lines;
}

/** A place of a Bézier curve, by de Casteljau. */
function bezier(points: readonly (readonly [number, number])[], t: number): [number, null, number] {
  let now = points;
  while (now.length > 1)
    now = now.slice(1).map(([x, y], i) => {
      const [ax, ay] = now[i]!;
      return [ax + (x - ax) * t, ay + (y - ay) * t] as const;
    });
  return [now[0]![0], null, now[0]![1]];
}
