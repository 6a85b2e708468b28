import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import makerjs from 'makerjs';
import { laidOn, lengthOfPoints, pathFromPoints, PlanCurve } from '../../path/index.ts';
import { FormatError } from '../errors.ts';
import { readDrawn, type DrawnLine } from './index.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const lengthOf = ({ points, closed }: DrawnLine) =>
  points.reduce((sum, [x, , z], i) => {
    const next = points[i + 1] ?? (closed ? points[0] : undefined);
    return next ? sum + Math.hypot(next[0] - x, next[2] - z) : sum;
  }, 0);
const total = (lines: readonly DrawnLine[]) => lines.reduce((sum, line) => sum + lengthOf(line), 0);

describe('lines of drawings, written by a library that is not ours (makerjs)', () => {
  const drawing: makerjs.IModel = {
    paths: {
      along: new makerjs.paths.Line([0, 0], [6, 0]),
      bend: new makerjs.paths.Arc([6, 2], 2, 270, 360),
      up: new makerjs.paths.Line([8, 2], [8, 7]),
    },
    models: { court: makerjs.model.move(new makerjs.models.Rectangle(4, 3), [20, 1]) },
  };
  const long = 6 + Math.PI + 5;

  test('DXF: pieces that meet are one line, its length and its unit are right, north is up', () => {
    const { lines, metresPerUnit, leftOut } = readDrawn(
      bytes(makerjs.exporter.toDXF(drawing, { units: makerjs.unitType.Millimeter })),
      'way.dxf',
    );
    expect(metresPerUnit).toBe(0.001);
    expect(leftOut).toEqual([]);
    expect(lines).toHaveLength(2);
    const way = lines.find(({ closed }) => !closed)!;
    expect(lengthOf(way) / long).toBeCloseTo(1, 3);
    expect(lengthOf(lines.find(({ closed }) => closed)!)).toBeCloseTo(14, 6);
    const ends = [way.points[0]!, way.points.at(-1)!].sort((a, b) => a[0] - b[0]);
    expect(ends.map(([x, , z]) => [x, z].map((value) => Math.round(value * 1e6) / 1e6 + 0))).toEqual([
      [0, 0],
      [8, -7],
    ]);
  });

  test('a line goes the way that it was drawn, and so does what is put together from pieces', () => {
    const model: makerjs.IModel = { paths: { one: new makerjs.paths.Line([1, 1], [4, 1]) } };
    const [alone] = readDrawn(bytes(makerjs.exporter.toDXF(model)), 'a.dxf').lines;
    expect(alone!.points.map(([x]) => x)).toEqual([1, 4]);
    model.paths!['two'] = new makerjs.paths.Line([4, 5], [4, 1]);
    const [both] = readDrawn(bytes(makerjs.exporter.toDXF(model)), 'b.dxf').lines;
    expect(both!.points.map(([x, , z]) => [x, z])).toEqual([
      [1, -1],
      [4, -1],
      [4, -5],
    ]);
  });

  test('SVG: the same lines, with their transforms', () => {
    const svg = makerjs.exporter.toSVG(drawing, { useSvgPathOnly: true, units: makerjs.unitType.Millimeter });
    const { lines, metresPerUnit } = readDrawn(bytes(svg), 'way.svg');
    expect(metresPerUnit).toBeNull();
    expect(total(lines) / (long + 14)).toBeCloseTo(1, 3);
  });

  test('curves and arcs of SVG against their lengths', () => {
    const quarter = readDrawn(
      bytes('<svg><g transform="translate(3 4) scale(2)"><path d="M0 0A5 5 0 0 1 5 5"/></g></svg>'),
      'a.svg',
    );
    expect(lengthOf(quarter.lines[0]!) / (5 * Math.PI)).toBeCloseTo(1, 3);
    expect(quarter.lines[0]!.points[0]).toEqual([3, null, 4]);
    // A cubic with evenly spaced controls on a line is that line.
    const straight = readDrawn(bytes('<svg><path d="M0 0C1 0 2 0 3 0h2v2z"/></svg>'), 'b.svg');
    expect(straight.lines[0]).toMatchObject({ closed: true });
    expect(lengthOf(straight.lines[0]!)).toBeCloseTo(5 + 2 + Math.hypot(5, 2), 6);
    const hidden = '<svg><defs><path d="M0 0L9 9"/></defs><polyline points="0,0 4,0 4,3"/></svg>';
    expect(total(readDrawn(bytes(hidden), 'c.svg').lines)).toBe(7);
  });

  test('a bulge is an arc: half a circle between two vertices', () => {
    const half = ['0', 'SECTION', '2', 'ENTITIES', '0', 'LWPOLYLINE', '8', 'Way', '90', '2', '70', '0']
      .concat(['10', '0', '20', '0', '42', '1', '10', '4', '20', '0', '0', 'ENDSEC', '0', 'EOF'])
      .join('\n');
    const { lines } = readDrawn(bytes(half), 'half.dxf');
    expect(lengthOf(lines[0]!) / (2 * Math.PI)).toBeCloseTo(1, 2);
    // Counter-clockwise from the left to the right: below the line, which is down the plan.
    expect(Math.max(...lines[0]!.points.map(([, , z]) => z))).toBeCloseTo(2, 1);
  });
});

describe('CSV', () => {
  test('two columns, three, named ones, decimal commas, several lines', () => {
    const read = (text: string) => readDrawn(bytes(text), 'way.csv').lines.map(({ points }) => points);
    expect(read('0,0\n4,0\n4,3')).toEqual([
      [
        [0, null, 0],
        [4, null, 0],
        [4, null, 3],
      ],
    ]);
    expect(read('x;y;z\n0,5;1,2;0\n4,5;1,3;0')).toEqual([
      [
        [0.5, 1.2, 0],
        [4.5, 1.3, 0],
      ],
    ]);
    expect(read('x,y\n1,2\n3,4')).toEqual([
      [
        [1, null, 2],
        [3, null, 4],
      ],
    ]);
    expect(read('0\t0\n1\t0\n\n5\t5\n6\t5')).toHaveLength(2);
  });

  test('rows that are no place are counted and said', () => {
    expect(readDrawn(bytes('0,0\n1,0\nhere,there\n2,0'), 'a.csv').leftOut).toEqual(['1 row is no place and left out.']);
  });
});

describe('files that hold no line', () => {
  test.each([
    ['a.dxf', 'nothing of the kind'],
    ['b.dxf', 'Any Binary DXF\r\n'],
    ['c.svg', '<svg><path d="M0 0'],
    ['d.svg', '<svg><circle r="3"/></svg>'],
    ['e.svg', '<svg><path d="rubbish"/></svg>'],
    ['f.csv', 'no,numbers\nhere,either'],
    ['g.csv', '1,1'],
    ['h.pdf', 'x'],
    ['i.dxf', ''],
  ])('%s says what is wrong', (name, text) => {
    expect(() => readDrawn(bytes(text), name)).toThrow(FormatError);
  });

  test('any bytes give lines or words, never an error of an engine', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), fc.constantFrom('a.dxf', 'a.svg', 'a.csv'), (data, name) => {
        try {
          readDrawn(data, name);
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('a path along a line', () => {
  test('few nodes, corners where it turns, within three centimetres of every point', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 1, max: 8, noNaN: true }), fc.double({ min: -2, max: 2, noNaN: true })), {
          minLength: 2,
          maxLength: 8,
        }),
        (legs) => {
          let [x, z, heading] = [0, 0, 0];
          const points: [number, null, number][] = [[0, null, 0]];
          for (const [length, turn] of legs) {
            heading += turn;
            for (let k = 1; k <= 20; k += 1)
              points.push([x + (length * k * Math.cos(heading)) / 20, null, z + (length * k * Math.sin(heading)) / 20]);
            [x, , z] = points.at(-1)!;
          }
          let n = 0;
          const newId = () => `00000000-0000-4000-8000-${String((n += 1)).padStart(12, '0')}`;
          const path = pathFromPoints(points, { closed: false, newId, surface: () => 0.2 });
          expect(path.nodes.length).toBeLessThanOrEqual(legs.length + 1);
          expect(path.nodes.every(({ y, surface }) => y === 0.2 && surface)).toBe(true);
          const sharp = { ...path, nodes: path.nodes.map((node) => ({ ...node, kind: 'corner' as const, radius: 0 })) };
          const curve = new PlanCurve(sharp);
          const at = new Float64Array(2);
          for (const [px, , pz] of points) {
            curve.pointAt(curve.nearest(px, pz).station, at);
            expect(Math.hypot(at[0]! - px, at[1]! - pz)).toBeLessThan(0.035);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('a line laid on a site', () => {
  const line: [number, number | null, number][] = [
    [0, null, 0],
    [4000, 500, -3000],
  ];
  const extent = [-10, -10, 10, 10] as const;

  test('near the site it stays where its drawing says, in metres and with its heights', () => {
    const { points, moved } = laidOn(line, 0.001, ([x, y, z]) => [x + 1, y, z], extent);
    expect(moved).toBe(false);
    expect(points).toEqual([
      [1, null, 0],
      [5, 0.5, -3],
    ]);
    expect(lengthOfPoints(points, false)).toBeCloseTo(5, 9);
  });

  test('far away, or without a place, it comes to the middle, as long as it is', () => {
    for (const place of [([x, y, z]: [number, number, number]) => [x + 500_000, y, z] as const, null]) {
      const { points, moved } = laidOn(line, 0.001, place, extent);
      expect(moved).toBe(true);
      expect(lengthOfPoints(points, false)).toBeCloseTo(5, 9);
      expect(points[0]![0] + points[1]![0]).toBeCloseTo(0, 6);
      expect(points.every(([, y]) => y === null)).toBe(true);
    }
  });
});

describe('curves and surfaces in a DXF', () => {
  const pair = (code: number, value: string | number) => `${code}\n${value}\n`;
  const dxf = (...entities: [type: string, ...codes: [number, string | number][]][]) =>
    bytes(
      `${pair(0, 'SECTION')}${pair(2, 'ENTITIES')}${entities
        .map(([type, ...codes]) => pair(0, type) + codes.map(([code, value]) => pair(code, value)).join(''))
        .join('')}${pair(0, 'ENDSEC')}${pair(0, 'EOF')}`,
    );
  const at = (x: number, y: number): [number, number][] => [
    [10, x],
    [20, y],
    [30, 0],
  ];

  test('a spline whose control points are those of a cubic curve is that curve', () => {
    const knots = [0, 0, 0, 0, 1, 1, 1, 1].map((value): [number, number] => [40, value]);
    const corners = [at(0, 0), at(0, 4), at(6, 4), at(6, 0)].flat();
    const spline = dxf(['SPLINE', [8, 'Way'], [70, 8], [71, 3], [72, 8], [73, 4], [74, 0], ...knots, ...corners]);
    const [line] = readDrawn(spline, 'way.dxf').lines;
    const { points } = line!;
    expect(points[0]!.map((value) => value! + 0)).toEqual([0, 0, 0]);
    // Its middle by hand: an eighth of the ends and three eighths of the others.
    const middle = points[(points.length - 1) / 2]!;
    expect(middle[0]).toBeCloseTo(3, 9);
    expect(middle[2]).toBeCloseTo(-3, 9);
    expect(points.at(-1)![0]).toBeCloseTo(6, 9);
  });

  test('an ellipse is as long as it should be, and half of one has its ends', () => {
    const ellipse = (from: number, to: number) =>
      dxf(['ELLIPSE', ...at(10, 5), [11, 0], [21, 4], [31, 0], [40, 0.5], [41, from], [42, to]]);
    const [whole] = readDrawn(ellipse(0, 2 * Math.PI), 'a.dxf').lines;
    expect(whole!.closed).toBe(true);
    // Ramanujan's second formula for semi-axes of 4 and 2 (common knowledge).
    const h = (4 - 2) ** 2 / (4 + 2) ** 2;
    const length = Math.PI * 6 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
    expect(lengthOf(whole!) / length).toBeCloseTo(1, 2);
    const [half] = readDrawn(ellipse(0, Math.PI), 'b.dxf').lines;
    expect(half!.points[0]![2]).toBeCloseTo(-9, 9);
    expect(half!.points.at(-1)![2]).toBeCloseTo(-1, 9);
    // Counter-clockwise from the end of its axis, which points up the drawing: it goes left.
    expect(Math.min(...half!.points.map(([x]) => x))).toBeCloseTo(8, 2);
  });

  test('what is drawn on the back of a plane is mirrored; surfaces are left out and counted', () => {
    const arc = (up: number) => dxf(['ARC', ...at(3, 0), [40, 1], [50, 0], [51, 90], [210, 0], [220, 0], [230, up]]);
    const [front] = readDrawn(arc(1), 'a.dxf').lines;
    const [back] = readDrawn(arc(-1), 'b.dxf').lines;
    expect(back!.points.map(([x]) => -x)).toEqual(front!.points.map(([x]) => x));
    const vertex = (x: number, y: number, flags: number): [string, ...[number, number][]] => [
      'VERTEX',
      ...at(x, y),
      [70, flags],
    ];
    const mesh = readDrawn(
      dxf(
        ['POLYLINE', [66, 1], ...at(0, 0), [70, 64]],
        vertex(0, 0, 192),
        vertex(1, 0, 192),
        vertex(0, 1, 192),
        vertex(0, 0, 128),
        ['SEQEND'],
        ['LINE', ...at(0, 0), [11, 5], [21, 0], [31, 0]],
      ),
      'mesh.dxf',
    );
    expect(mesh.lines).toHaveLength(1);
    expect(lengthOf(mesh.lines[0]!)).toBeCloseTo(5, 9);
    expect(mesh.leftOut).toEqual(['1 × POLYLINE left out: no line to walk along.']);
  });
});
