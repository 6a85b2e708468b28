/** What a number field measures; decides which units it understands and what a bare number means. */
export type Measure = 'length' | 'angle' | 'time' | 'speed' | 'millimetre' | 'millimetre a second' | 'plain';

/** Units by measure, as factors to the measure's own unit. The first is what a bare number means. */
const UNITS: Record<Measure, Record<string, number>> = {
  length: { m: 1, cm: 0.01, mm: 0.001, km: 1000, ft: 0.3048, "'": 0.3048, in: 0.0254, '"': 0.0254 },
  millimetre: { mm: 1, cm: 10, m: 1000, ft: 304.8, "'": 304.8, in: 25.4, '"': 25.4 },
  angle: { '°': 1, deg: 1, rad: 180 / Math.PI },
  time: { s: 1, sec: 1, min: 60, f: Number.NaN },
  speed: { 'm/s': 1, 'mm/s': 0.001, 'km/h': 1 / 3.6 },
  'millimetre a second': { 'mm/s': 1, 'cm/s': 10, 'm/s': 1000 },
  plain: {},
};

/**
 * Reads what a person typed into a number field: arithmetic with + − × ÷ and brackets, numbers with units, feet and
 * inches. A decimal comma is a decimal point.
 * @param frames frames per second, for times in frames (`72f`)
 * @returns the value in the measure's own unit, or null when it cannot be read
 */
export function readNumber(text: string, measure: Measure, frames = 25): number | null {
  const units = { ...UNITS[measure] };
  if (measure === 'time') units['f'] = 1 / frames;
  const tokens = tokenise(
    text.replace(/,/g, '.').replace(/[−–]/g, '-').replace(/×/g, '*').replace(/÷/g, '/'),
    Object.keys(units),
  );
  if (!tokens || tokens.length === 0) return null;
  let at = 0;
  const peek = () => tokens[at];
  const sum = (): number => {
    let value = product();
    while (peek() === '+' || peek() === '-') value = tokens[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const product = (): number => {
    let value = single();
    while (peek() === '*' || peek() === '/') value = tokens[at++] === '*' ? value * single() : value / single();
    return value;
  };
  const single = (): number => {
    const token = tokens[at++];
    if (token === '-') return -single();
    if (token === '+') return single();
    if (token === '(') {
      const value = sum();
      if (tokens[at++] !== ')') return Number.NaN;
      return value;
    }
    if (typeof token !== 'number') return Number.NaN;
    let value = token;
    const unit = peek();
    if (typeof unit !== 'string' || !(unit in units)) return value;
    value *= units[unit]!;
    at += 1;
    // Feet are followed by inches without a sign: 5'6".
    if ((unit === "'" || unit === 'ft') && typeof peek() === 'number') value += single();
    return value;
  };
  const value = sum();
  return at === tokens.length && Number.isFinite(value) ? value : null;
}

function tokenise(text: string, units: readonly string[]): (number | string)[] | null {
  const byLength = [...units].sort((a, b) => b.length - a.length);
  const tokens: (number | string)[] = [];
  let rest = text.trim().toLowerCase();
  while (rest !== '') {
    const number = /^(\d+\.?\d*|\.\d+)/.exec(rest);
    const unit = byLength.find((u) => rest.startsWith(u));
    if (number) tokens.push(Number(number[0]));
    else if (unit) tokens.push(unit);
    else if ('+-*/()'.includes(rest[0]!)) tokens.push(rest[0]!);
    else return null;
    rest = rest.slice(number?.[0].length ?? (unit ? unit.length : 1)).trimStart();
  }
  return tokens;
}
