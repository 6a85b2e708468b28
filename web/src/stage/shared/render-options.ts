/** How large a picture may be rendered. */
export const SIZES = [
  // Quick enough to judge the pace of a minute.
  { value: '180', label: '320 px wide, for the pace', width: 320 },
  { value: '360', label: '640 px wide, small', width: 640 },
  { value: '720', label: '1280 px wide', width: 1280 },
  { value: '1080', label: '1920 px wide', width: 1920 },
  { value: '2160', label: '3840 px wide, large', width: 3840 },
] as const;

/** How often a picture is drawn for one. */
export const QUALITIES = [
  { value: 'draft', label: 'Draft, 2 passes', subframes: 2 },
  { value: 'good', label: 'Good, 8 passes', subframes: 8 },
  { value: 'fine', label: 'Fine, 32 passes', subframes: 32 },
] as const;

/** Which part of a frame's time the shutter is open. */
export const SHUTTERS = [
  { value: 'half', label: 'Half a frame (180°)', open: 0.5 },
  { value: 'whole', label: 'All of it (360°)', open: 1 },
  { value: 'none', label: 'An instant, no blur', open: 0 },
] as const;

const even = (n: number) => Math.max(16, Math.round(n / 2) * 2);

/** Pixels of a picture so many wide: films need even numbers. @param aspect width over height */
export const evenPixels = (width: number, aspect: number): { width: number; height: number } => ({
  width: even(width),
  height: even(width / aspect),
});
