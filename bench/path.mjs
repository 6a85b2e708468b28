// Path evaluation against three.js: 1,500 equal steps along 40 nodes with irregular spacing.
import { PlanCurve } from '@eskovan/core/path';
import { CatmullRomCurve3, Vector3 } from 'three';
import { timed } from './lib/measure.mjs';

const SAMPLES = 1500;

/** 40 nodes, 0.4 to 3 m apart, winding. The same on every run. */
function nodes() {
  let seed = 7;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  let [x, z, heading] = [0, 0, 0];
  return Array.from({ length: 40 }, (_, i) => {
    const step = 0.4 + 2.6 * random();
    heading += (random() - 0.5) * 1.6;
    x += step * Math.cos(heading);
    z += step * Math.sin(heading);
    return {
      id: `00000000-0000-4000-8000-0000000000${String(i).padStart(2, '0')}`,
      x,
      y: 0,
      z,
      kind: 'smooth',
      radius: 0.5,
    };
  });
}

/**
 * Worst relative error of the step length, measured on a polyline so fine that it is the curve: neither side's own
 * arc length is trusted.
 */
function worstSpeedError(points, dense) {
  const lengths = new Float64Array(dense.length / 2);
  for (let i = 1; i < lengths.length; i += 1)
    lengths[i] = lengths[i - 1] + Math.hypot(dense[2 * i] - dense[2 * i - 2], dense[2 * i + 1] - dense[2 * i - 1]);
  let at = 0;
  const stations = points.map(([x, z]) => {
    let best = Infinity;
    let station = 0;
    for (let i = at; i + 1 < lengths.length && lengths[i] < lengths[at] + 0.6; i += 1) {
      const [ax, az] = [dense[2 * i], dense[2 * i + 1]];
      const [dx, dz] = [dense[2 * i + 2] - ax, dense[2 * i + 3] - az];
      const t = Math.min(1, Math.max(0, ((x - ax) * dx + (z - az) * dz) / (dx * dx + dz * dz || 1)));
      const distance = (x - ax - t * dx) ** 2 + (z - az - t * dz) ** 2;
      if (distance < best) {
        best = distance;
        station = lengths[i] + t * (lengths[i + 1] - lengths[i]);
      }
    }
    while (lengths[at + 1] < station - 0.01) at += 1;
    return station;
  });
  const step = lengths.at(-1) / (points.length - 1);
  let worst = 0;
  for (let i = 1; i < stations.length; i += 1)
    worst = Math.max(worst, Math.abs((stations[i] - stations[i - 1]) / step - 1));
  return worst;
}

export function benchPath() {
  const list = nodes();
  const path = { nodes: list, closed: false };
  const points = list.map(({ x, z }) => new Vector3(x, 0, z));
  const fractions = Array.from({ length: SAMPLES }, (_, i) => i / (SAMPLES - 1));
  const out = new Float64Array(2 * SAMPLES);
  const ours = () => {
    const curve = new PlanCurve(path);
    curve.pointsAt(
      fractions.map((f) => f * curve.length),
      out,
    );
  };
  const target = new Vector3();
  const theirs = () => {
    const curve = new CatmullRomCurve3(points, false, 'centripetal');
    for (const f of fractions) curve.getPointAt(f, target);
  };
  const [ourTime, theirTime] = [timed(ours), timed(theirs)];

  const curve = new PlanCurve(path);
  const DENSE = 400_000;
  const ourDense = new Float64Array(2 * DENSE);
  const segments = curve.chain.length / 8;
  for (let i = 0; i < DENSE; i += 1) {
    const place = (i / (DENSE - 1)) * segments;
    const base = Math.min(Math.floor(place), segments - 1) * 8;
    const t = place - base / 8;
    const u = 1 - t;
    for (let k = 0; k < 2; k += 1)
      ourDense[2 * i + k] =
        u * u * u * curve.chain[base + k] +
        3 * u * u * t * curve.chain[base + 2 + k] +
        3 * u * t * t * curve.chain[base + 4 + k] +
        t * t * t * curve.chain[base + 6 + k];
  }
  ours();
  const ourError = worstSpeedError(
    Array.from({ length: SAMPLES }, (_, i) => [out[2 * i], out[2 * i + 1]]),
    ourDense,
  );
  const reference = new CatmullRomCurve3(points, false, 'centripetal');
  const theirDense = new Float64Array(2 * DENSE);
  for (let i = 0; i < DENSE; i += 1) {
    reference.getPoint(i / (DENSE - 1), target);
    theirDense[2 * i] = target.x;
    theirDense[2 * i + 1] = target.z;
  }
  const theirError = worstSpeedError(
    fractions.map((f) => (reference.getPointAt(f, target), [target.x, target.z])),
    theirDense,
  );
  return [
    {
      what: 'path: 1,500 samples of 40 nodes, table included',
      ours: `${ourTime.toFixed(2)} ms`,
      baseline: `${theirTime.toFixed(2)} ms, three.js getPointAt`,
      ratio: `${(theirTime / ourTime).toFixed(2)} × as fast`,
      wanted: 'not slower',
      holds: ourTime <= theirTime,
    },
    {
      what: 'path: worst error of constant speed',
      ours: `${(100 * ourError).toPrecision(2)} %`,
      baseline: `${(100 * theirError).toPrecision(2)} %, three.js getPointAt`,
      ratio: `${(theirError / ourError).toExponential(1)} × as even`,
      wanted: 'below 0.001 %',
      holds: ourError < 1e-5,
    },
  ];
}
