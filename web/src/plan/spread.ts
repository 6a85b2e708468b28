/** Places where a mark may go when its own is taken: round it, nearer ones first; pixels. */
const RINGS: readonly (readonly [count: number, radius: number])[] = [
  [8, 21],
  [12, 40],
  [18, 60],
];

const PLACES: readonly (readonly [number, number])[] = RINGS.flatMap(([count, radius]) =>
  Array.from({ length: count }, (_, i) => {
    const angle = (2 * Math.PI * i) / count - Math.PI / 2;
    return [radius * Math.cos(angle), radius * Math.sin(angle)] as const;
  }),
);

/**
 * Keeps marks of a fixed size from lying on each other: those that come first stay, others step aside.
 * @param points where the marks belong, pixels
 * @param apart least distance between two marks, pixels
 * @returns how far each steps aside, pixels; marks for which there is no room stay where they are
 */
export function spread(points: readonly (readonly [number, number])[], apart: number): [number, number][] {
  const taken: [number, number][] = [];
  const free = (x: number, y: number) => taken.every(([a, b]) => Math.hypot(a - x, b - y) >= apart);
  return points.map(([x, y]) => {
    const [dx, dy] = free(x, y) ? [0, 0] : (PLACES.find(([a, b]) => free(x + a, y + b)) ?? [0, 0]);
    taken.push([x + dx, y + dy]);
    return [dx, dy];
  });
}
