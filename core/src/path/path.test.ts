import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Path, PathNode } from '../document/index.ts';
import {
  goneOnAlong,
  arcLength,
  deleteNode,
  insertNode,
  moveNode,
  PlanCurve,
  reversePath,
  setClosed,
  setNodeKind,
} from './index.ts';

let serial = 0;
const id = () => `00000000-0000-4000-8000-${String((serial += 1)).padStart(12, '0')}`;
const node = (x: number, z: number, kind: PathNode['kind'] = 'smooth', radius = 0.5): PathNode => ({
  id: id(),
  x,
  y: 0,
  z,
  kind,
  radius,
});
const path = (nodes: PathNode[], closed = false): Path => ({ nodes, closed });
const at = (curve: PlanCurve, station: number): [number, number] => {
  const p = new Float64Array(2);
  curve.pointAt(station, p);
  return [p[0]!, p[1]!];
};
// Decimetres: nodes as a hand puts them, some on top of each other.
const coordinate = fc.integer({ min: -200, max: 200 }).map((n) => n / 10);
const anyPath = fc
  .record({
    nodes: fc.array(fc.record({ x: coordinate, z: coordinate, corner: fc.boolean() }), { minLength: 2, maxLength: 12 }),
    closed: fc.boolean(),
  })
  .map(({ nodes, closed }) =>
    path(
      nodes.map((n) => node(n.x, n.z, n.corner ? 'corner' : 'smooth')),
      closed,
    ),
  )
  .filter((p) => new PlanCurve(p).length > 0.01);

describe('arc length by quadrature', () => {
  // Source: complete elliptic integral of the second kind, 4·a·E(e); 9.688448220547675 for a = 2, b = 1
  // (Digital Library of Mathematical Functions, §19.8).
  test('ellipse a = 2, b = 1', () => {
    const length = arcLength((t) => Math.hypot(2 * Math.sin(t), Math.cos(t)), 0, 2 * Math.PI);
    expect(Math.abs(length / 9.688448220547675 - 1)).toBeLessThan(1e-6);
  });

  test('circle 2πr', () => {
    expect(Math.abs(arcLength(() => 3, 0, 2 * Math.PI) / (6 * Math.PI) - 1)).toBeLessThan(1e-6);
  });

  // Source: √(r² + c²) per radian, any text on the geometry of curves.
  test('helix of radius 2 rising 0.5 m per radian, three turns', () => {
    const speed = (t: number) => Math.hypot(-2 * Math.sin(t), 0.5, 2 * Math.cos(t));
    expect(Math.abs(arcLength(speed, 0, 6 * Math.PI) / (Math.hypot(2, 0.5) * 6 * Math.PI) - 1)).toBeLessThan(1e-6);
  });
});

describe('a path through nodes on known curves', () => {
  test('many nodes on a circle and an ellipse approach their perimeters', () => {
    const ring = (a: number, b: number, count: number) =>
      path(
        Array.from({ length: count }, (_, i) => {
          const t = (2 * Math.PI * i) / count;
          return node(a * Math.cos(t), b * Math.sin(t));
        }),
        true,
      );
    expect(Math.abs(new PlanCurve(ring(3, 3, 240)).length / (6 * Math.PI) - 1)).toBeLessThan(1e-6);
    expect(Math.abs(new PlanCurve(ring(2, 1, 480)).length / 9.688448220547675 - 1)).toBeLessThan(1e-6);
  });

  test('a corner of radius 1 between two legs of 5 m: two legs of 4 m and a quarter circle', () => {
    const curve = new PlanCurve(path([node(0, 0), node(5, 0, 'corner', 1), node(5, 5)]));
    expect(curve.length).toBeCloseTo(8 + Math.PI / 2, 3);
    const [x, z] = at(curve, curve.length / 2);
    expect(Math.hypot(x - 4, z - 1)).toBeCloseTo(1, 3);
  });

  test('a corner never cuts further than half the shorter leg', () => {
    const curve = new PlanCurve(path([node(0, 0), node(1, 0, 'corner', 50), node(1, 10)]));
    expect(at(curve, 0.49)).toEqual([expect.closeTo(0.49, 6), expect.closeTo(0, 9)]);
  });
});

describe('laws of the plan curve', () => {
  test('passes through every smooth node, but one that lies on a corner: they are one corner', () => {
    fc.assert(
      fc.property(anyPath, (p) => {
        const curve = new PlanCurve(p);
        const corners = p.nodes.filter(({ kind }) => kind === 'corner');
        const onCorner = (n: PathNode) => corners.some(({ x, z }) => Math.hypot(n.x - x, n.z - z) < 1e-4);
        for (const n of p.nodes)
          if (n.kind === 'smooth' && !onCorner(n)) expect(curve.nearest(n.x, n.z).distance).toBeLessThan(2e-3);
      }),
      { numRuns: 60 },
    );
  });

  test('a path that comes back beside itself is still met at its node', () => {
    const nodes = [node(0, 0), node(-10.5, -5.7), node(0, -8.9), node(-10.5, -5.9), node(-0.1, 2.3), node(0, -0.5)];
    const curve = new PlanCurve(path(nodes));
    for (const n of nodes) expect(curve.nearest(n.x, n.z).distance).toBeLessThan(2e-3);
  });

  test('nearest finds what a fine search finds, also in the centre of a ring', () => {
    const ring = path(
      Array.from({ length: 24 }, (_, i) => node(3 * Math.cos((i * Math.PI) / 12), 3 * Math.sin((i * Math.PI) / 12))),
      true,
    );
    expect(new PlanCurve(ring).nearest(0, 0).distance).toBeCloseTo(3, 2);
    fc.assert(
      fc.property(anyPath, coordinate, coordinate, (p, x, z) => {
        const curve = new PlanCurve(p);
        let finest = Infinity;
        for (let i = 0; i <= 4000; i += 1) {
          const [px, pz] = at(curve, (curve.length * i) / 4000);
          finest = Math.min(finest, Math.hypot(px - x, pz - z));
        }
        expect(curve.nearest(x, z).distance).toBeLessThan(finest + 1.01e-3);
      }),
      { numRuns: 30 },
    );
  });

  test('equal stations are equally far apart: walking is at constant speed', () => {
    fc.assert(
      fc.property(anyPath, (p) => {
        const curve = new PlanCurve(p);
        const steps = 400;
        const stations = Float64Array.from({ length: steps + 1 }, (_, i) => (curve.length * i) / steps);
        const points = new Float64Array(2 * (steps + 1));
        curve.pointsAt(stations, points);
        for (let i = 1; i <= steps; i += 1) {
          const chord = Math.hypot(points[2 * i]! - points[2 * i - 2]!, points[2 * i + 1]! - points[2 * i - 1]!);
          // A chord can only be shorter than its arc.
          expect(chord).toBeLessThan((curve.length / steps) * (1 + 1e-6));
        }
      }),
      { numRuns: 60 },
    );
  });

  test('just before and after a smooth node where the way turns back, it is as far away as it says', () => {
    const path: Path = {
      closed: false,
      nodes: [26.9373173801369, -39.999904638687035, 0].map((z, i) => ({
        id: `00000000-0000-4000-8000-00000000000${i}`,
        x: 0,
        y: 0,
        z,
        kind: 'smooth',
        radius: 0.5,
      })),
    };
    const curve = new PlanCurve(path);
    const point = new Float64Array(2);
    for (let away = 1; away > 1e-8; away *= 0.9)
      for (const side of [-1, 1]) {
        curve.pointAt(curve.nodeStations[1]! + side * away, point);
        expect(Math.abs(Math.hypot(point[0]!, point[1]! - path.nodes[1]!.z) - away)).toBeLessThan(1e-8);
      }
    expect(curve.nearest(0, path.nodes[1]!.z).distance).toBeLessThan(1e-4);
  });

  test('batch and single lookups agree', () => {
    fc.assert(
      fc.property(anyPath, fc.double({ min: 0, max: 1, noNaN: true }), (p, part) => {
        const curve = new PlanCurve(p);
        const out = new Float64Array(2);
        curve.pointsAt([part * curve.length], out);
        expect([...out]).toEqual(at(curve, part * curve.length));
      }),
    );
  });

  test('arc length is additive and the same both ways', () => {
    fc.assert(
      fc.property(anyPath, (p) => {
        const there = new PlanCurve(p).length;
        const back = new PlanCurve(reversePath(p)).length;
        expect(Math.abs(there - back)).toBeLessThan(1e-6 * there);
      }),
      {
        // Two roundings that use up the short leg between them: its direction was once taken from nothing.
        examples: [
          [path([node(0, 0), node(-1.4, -11.9, 'corner'), node(-1.8, -12.1, 'corner'), node(0, 0), node(0, 0)])],
        ],
      },
    );
  });

  test('any point of the chain is where the quadrature says it is', () => {
    const curve = new PlanCurve(path([node(0, 0), node(1, 3), node(4, 3.5), node(9, -2), node(9.5, 0)]));
    const p = new Float64Array(2);
    const h = 1e-5;
    const speed = (s: number) => {
      const [ax, az] = at(curve, Math.max(0, s - h));
      const [bx, bz] = at(curve, Math.min(curve.length, s + h));
      return Math.hypot(bx - ax, bz - az) / (Math.min(curve.length, s + h) - Math.max(0, s - h));
    };
    for (let s = 0.01; s < curve.length; s += 0.05) expect(Math.abs(speed(s) - 1)).toBeLessThan(1e-5);
    curve.directionAt(0, p);
    expect(Math.hypot(p[0]!, p[1]!)).toBeCloseTo(1, 12);
  });

  test('nodes on top of each other do no harm', () => {
    const curve = new PlanCurve(path([node(0, 0), node(0, 0), node(2, 0), node(2, 0)]));
    expect(curve.length).toBeCloseTo(2, 9);
  });
});

describe('going on along another path', () => {
  const at = (...places: (readonly [number, number])[]): Path => ({
    nodes: places.map(([x, z], i) => ({ id: `${x} ${z} ${i}`, x, y: 0, z, kind: 'smooth', radius: 0.5 })),
    closed: false,
  });
  const placesOf = ({ nodes }: Path) => nodes.map(({ x, z }) => [x, z]);

  test('from its nearer end; without nodes it becomes the other one; a closed one is gone round from its nearest node', () => {
    const path = at([0, 0], [1, 0]);
    expect(placesOf(goneOnAlong(path, at([5, 0], [9, 0])))).toEqual([
      [0, 0],
      [1, 0],
      [5, 0],
      [9, 0],
    ]);
    expect(placesOf(goneOnAlong(path, at([9, 0], [5, 0])))).toEqual([
      [0, 0],
      [1, 0],
      [5, 0],
      [9, 0],
    ]);
    const round: Path = { ...at([9, 0], [9, 4], [2, 4], [2, 0]), closed: true };
    expect(goneOnAlong(at(), round)).toEqual(round);
    const joined = goneOnAlong(path, round);
    expect(joined.closed).toBe(false);
    expect(placesOf(joined)).toEqual([
      [0, 0],
      [1, 0],
      [2, 0],
      [9, 0],
      [9, 4],
      [2, 4],
    ]);
  });
});

describe('editing', () => {
  const base = path([node(0, 0), node(4, 0), node(4, 4)]);

  test('an inserted node lies on the path and does not bend it far', () => {
    const inserted = insertNode(base, id(), 2, 0.3);
    expect(inserted.nodes).toHaveLength(4);
    expect(new PlanCurve(base).nearest(inserted.nodes[1]!.x, inserted.nodes[1]!.z).distance).toBeLessThan(1e-3);
    expect(Math.abs(new PlanCurve(inserted).length - new PlanCurve(base).length)).toBeLessThan(0.1);
  });

  test('move, delete, corner and close return new paths', () => {
    const first = base.nodes[0]!.id;
    expect(moveNode(base, first, 1, 1).nodes[0]).toMatchObject({ x: 1, z: 1 });
    expect(deleteNode(base, first).nodes).toHaveLength(2);
    expect(setNodeKind(base, first, 'corner').nodes[0]!.kind).toBe('corner');
    const ring = new PlanCurve(setClosed(base, true));
    expect(at(ring, ring.length)).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    expect(base.nodes[0]).toMatchObject({ x: 0, z: 0, kind: 'smooth' });
  });
});
