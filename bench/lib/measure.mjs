/** Median of a list of numbers. */
export const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Value below which a part of the list lies. */
export const percentile = (values, part) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))];

/** Median milliseconds of one call, after enough to be compiled. */
export function timed(call, { runs = 100, warm = 200 } = {}) {
  for (let i = 0; i < warm; i += 1) call();
  const times = [];
  for (let i = 0; i < runs; i += 1) {
    const start = performance.now();
    call();
    times.push(performance.now() - start);
  }
  return median(times);
}

/** @typedef {{ what: string, ours: string, baseline: string, ratio: string, wanted: string, holds: boolean | null }} Row */

/** Rows of one area whose figures have a limit: what comes so many times a second has to come at least so often. */
export const limitOf =
  (area) =>
  /** @returns {Row} */
  (what, ours, unit, wanted, holds) => ({
    what: `${area}: ${what}`,
    ours: `${ours} ${unit}`,
    baseline: `${wanted} ${unit} (limit)`,
    ratio: '',
    wanted: `${unit.endsWith('/s') ? 'at least' : 'at most'} ${wanted}`,
    holds,
  });
