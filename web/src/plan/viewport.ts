/** How the plan lies on the screen: metres to pixels. */
export interface Viewport {
  /** Plan point in the middle of the pane, metres. */
  x: number;
  z: number;
  /** Pixels per metre. */
  scale: number;
}

export interface Area {
  minX: number;
  minZ: number;
  maxX: number;
  maxZ: number;
}

/** Smaller than this nothing fills the pane, metres: the smallest product. */
const LEAST_AREA = 0.01;
const LEAST_SCALE = 0.5;
const MOST_SCALE = 20_000;

/** Shows an area whole, with a margin. */
export function fitArea(area: Area, width: number, height: number, margin = 34): Viewport {
  const [w, h] = [Math.max(area.maxX - area.minX, LEAST_AREA), Math.max(area.maxZ - area.minZ, LEAST_AREA)];
  const scale = Math.min((width - 2 * margin) / w, (height - 2 * margin) / h);
  return {
    x: (area.minX + area.maxX) / 2,
    z: (area.minZ + area.maxZ) / 2,
    scale: Math.max(LEAST_SCALE, Math.min(MOST_SCALE, scale)),
  };
}

/** Is an area wholly on the pane? */
export function isShown(area: Area, view: Viewport, width: number, height: number): boolean {
  const [w, h] = [width / 2 / view.scale, height / 2 / view.scale];
  return area.minX > view.x - w && area.maxX < view.x + w && area.minZ > view.z - h && area.maxZ < view.z + h;
}

/** What takes up less of the pane than this is shown, and not seen: a place has no size, and is as large as its mark. */
const LOST = 0.12;
export const isLost = (
  { minX, minZ, maxX, maxZ }: Area,
  { scale }: Viewport,
  width: number,
  height: number,
): boolean => {
  const pixels = Math.max(maxX - minX, maxZ - minZ) * scale;
  return pixels > 0 && pixels < LOST * Math.min(width, height);
};

/** An area with so many metres around it. */
export const grown = ({ minX, minZ, maxX, maxZ }: Area, by: number): Area => ({
  minX: minX - by,
  minZ: minZ - by,
  maxX: maxX + by,
  maxZ: maxZ + by,
});

/** What is shown around something, metres at most; around a small thing in a small model as much of it. */
const AROUND = 4;
const PART = 0.3;
const sizeOf = ({ minX, minZ, maxX, maxZ }: Area): number => Math.max(maxX - minX, maxZ - minZ);
/** How much is shown around an area of a model, metres. */
export const around = (area: Area, whole: Area): number =>
  Math.min(AROUND, PART * Math.max(sizeOf(area), sizeOf(whole)));

export function toPlan(view: Viewport, width: number, height: number, px: number, py: number): [number, number] {
  return [view.x + (px - width / 2) / view.scale, view.z + (py - height / 2) / view.scale];
}

/** Zooms by a factor so that the plan point under (px, py) stays there. */
export function zoomAt(
  view: Viewport,
  width: number,
  height: number,
  px: number,
  py: number,
  factor: number,
): Viewport {
  const [x, z] = toPlan(view, width, height, px, py);
  const scale = Math.max(LEAST_SCALE, Math.min(MOST_SCALE, view.scale * factor));
  return { x: x - (px - width / 2) / scale, z: z - (py - height / 2) / scale, scale };
}

export function panBy(view: Viewport, dx: number, dy: number): Viewport {
  return { ...view, x: view.x - dx / view.scale, z: view.z - dy / view.scale };
}

/** A round length that makes a scale bar of about 100 pixels. */
export function barLength(scale: number): number {
  const wanted = 100 / scale;
  const power = 10 ** Math.floor(Math.log10(wanted));
  return [5, 2, 1].map((n) => n * power).find((n) => n <= wanted) ?? power;
}
