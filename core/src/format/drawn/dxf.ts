import DxfParser, {
  type IArcEntity,
  type ICircleEntity,
  type IEllipseEntity,
  type IEntity,
  type ILineEntity,
  type ILwpolylineEntity,
  type IPolylineEntity,
  type ISplineEntity,
} from 'dxf-parser';
import { FormatError } from '../errors.ts';
import { textOf } from '../text/decode.ts';
import { arcPoints, usable, type Drawn, type DrawnLine } from './drawn.ts';
import { ellipsePoints, splinePoints } from './dxf-curves.ts';

/** Metres of a drawing unit, by the number that the header gives it (DXF reference, $INSUNITS). */
const UNITS: Readonly<Record<number, number>> = { 1: 0.0254, 2: 0.3048, 4: 0.001, 5: 0.01, 6: 1, 7: 1000, 14: 0.1 };

type Points = DrawnLine['points'];

/** Lines, polylines, arcs, ellipses and splines of a drawing; its north, which is up, is up the plan. */
export function readDxfLines(bytes: Uint8Array, fileName: string): Drawn {
  const damaged = (reason: string) => new FormatError('damaged', fileName, reason, 'Save it again as an ASCII DXF.');
  const text = textOf(bytes);
  if (/^\S+ Binary DXF/.test(text)) throw damaged('it is a binary DXF.');
  let drawing: ReturnType<DxfParser['parseSync']>;
  try {
    drawing = new DxfParser().parseSync(text);
  } catch {
    throw damaged('it is no DXF that can be read.');
  }
  if (!drawing?.entities) throw damaged('it has no drawing in it.');
  const lines: DrawnLine[] = [];
  const pieces: Points[] = [];
  const others = new Map<string, number>();
  drawing.entities.forEach((entity) => {
    const line = lineOf(entity);
    const name = `${entity.layer || 'Line'} ${lines.length + 1}`;
    if (!line) others.set(entity.type, (others.get(entity.type) ?? 0) + 1);
    else if (line.piece) pieces.push(line.points);
    else lines.push({ name, closed: line.closed, points: line.points });
  });
  chained(pieces).forEach((points) => lines.push({ name: `Line ${lines.length + 1}`, closed: false, points }));
  const leftOut = [...others].map(([type, count]) => `${count} × ${type} left out: no line to walk along.`);
  const unit = Number(drawing.header?.['$INSUNITS']);
  return { lines: usable(lines, fileName), metresPerUnit: UNITS[unit] ?? null, leftOut };
}

interface Vertex {
  x: number;
  y: number;
  z?: number;
  bulge?: number;
  /** It only shapes the curve that other vertices are on. */
  splineControlPoint?: boolean;
}

type Line = { points: Points; closed: boolean; piece: boolean };

/** A line as it lies in the drawing: what is drawn on the back of a plane is mirrored (DXF reference, arbitrary axis). */
function lineOf(entity: IEntity): Line | null {
  const line = lineFromFront(entity);
  const up = (entity as Partial<IArcEntity>).extrusionDirectionZ ?? 1;
  return line && up < 0 ? { ...line, points: line.points.map(([x, y, z]) => [-x, y, z]) } : line;
}

/** A piece may be one of several that make a line. */
function lineFromFront(entity: IEntity): Line | null {
  switch (entity.type) {
    case 'LINE': {
      const { vertices } = entity as ILineEntity;
      return { points: vertices.map(pointOf), closed: false, piece: true };
    }
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const { vertices, shape } = entity as ILwpolylineEntity | IPolylineEntity;
      const { is3dPolygonMesh, isPolyfaceMesh } = entity as Partial<IPolylineEntity>;
      // The vertices of a surface are no line.
      if (is3dPolygonMesh || isPolyfaceMesh) return null;
      const own = (vertices as Vertex[]).filter(({ splineControlPoint }) => !splineControlPoint);
      return { points: withBulges(own, shape), closed: shape, piece: false };
    }
    case 'ARC': {
      const { center, radius, startAngle, endAngle } = entity as IArcEntity;
      const end = endAngle < startAngle ? endAngle + 2 * Math.PI : endAngle;
      return { points: arcPoints([center.x, -center.y], radius, -startAngle, -end), closed: false, piece: true };
    }
    case 'CIRCLE': {
      const { center, radius } = entity as ICircleEntity;
      return { points: arcPoints([center.x, -center.y], radius, 0, 2 * Math.PI), closed: true, piece: false };
    }
    case 'ELLIPSE': {
      const points = ellipsePoints(entity as IEllipseEntity).map(pointOf);
      return { points, closed: false, piece: true };
    }
    case 'SPLINE': {
      const points = splinePoints(entity as ISplineEntity)?.map(pointOf);
      return points ? { points, closed: false, piece: true } : null;
    }
    default:
      return null;
  }
}

/** Up the drawing is up the plan: away from +z. A height of nothing is none. */
const pointOf = ({ x, y, z }: Vertex): Points[number] => [x, z ? z : null, -y];

/** A bulge is the tangent of a quarter of the arc's angle, positive to the left (DXF reference, group code 42). */
function withBulges(vertices: readonly Vertex[], closed: boolean): Points {
  return vertices.flatMap((a, i): Points => {
    const b = vertices[i + 1] ?? (closed ? vertices[0] : undefined);
    if (!b || !a.bulge) return [pointOf(a)];
    const angle = 4 * Math.atan(a.bulge);
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const reach = (1 - a.bulge * a.bulge) / (4 * a.bulge);
    const centre = [(a.x + b.x) / 2 - dy * reach, (a.y + b.y) / 2 + dx * reach] as const;
    const from = Math.atan2(a.y - centre[1], a.x - centre[0]);
    const radius = Math.hypot(a.x - centre[0], a.y - centre[1]);
    return arcPoints([centre[0], -centre[1]], radius, -from, -(from + angle)).slice(0, -1);
  });
}

/** Pieces that meet at their ends are one line, in the order in which they meet. */
function chained(pieces: readonly Points[]): Points[] {
  const key = ([x, , z]: Points[number]) => `${x.toFixed(6)} ${z.toFixed(6)}`;
  const at = new Map<string, Points[]>();
  const put = (piece: Points) =>
    [piece[0]!, piece.at(-1)!].forEach((end) => at.set(key(end), [...(at.get(key(end)) ?? []), piece]));
  const whole = pieces.filter(({ length }) => length > 1);
  whole.forEach(put);
  const used = new Set<Points>();
  const grow = (line: Points): Points => {
    for (;;) {
      const end = line.at(-1)!;
      // Where three meet nobody knows which way it goes.
      const there = at.get(key(end)) ?? [];
      const next = there.length === 2 ? there.find((piece) => !used.has(piece)) : undefined;
      if (!next) return line;
      used.add(next);
      line.push(...(key(next[0]!) === key(end) ? next : [...next].reverse()).slice(1));
    }
  };
  return whole.flatMap((piece) => {
    if (used.has(piece)) return [];
    used.add(piece);
    // Forth from its end, then back from its beginning: it goes the way that its first piece was drawn.
    return [grow(grow([...piece]).reverse()).reverse()];
  });
}
