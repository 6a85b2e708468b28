import type { Frame } from '@eskovan/core/document';

/** Ratios that pictures are seen in. A-series paper is 1 : √2 (ISO 216). */
export const FRAMES = [
  { value: '16:9', label: '16 : 9' },
  { value: '3:2', label: '3 : 2' },
  { value: '4:3', label: '4 : 3' },
  { value: '1:1', label: '1 : 1' },
  { value: '4:5', label: '4 : 5' },
  { value: '9:16', label: '9 : 16' },
  { value: '2.39:1', label: '2.39 : 1' },
  { value: '297:210', label: 'A paper, wide' },
  { value: '210:297', label: 'A paper, tall' },
] as const;

export const frameText = ({ width, height }: Frame): string => `${width}:${height}`;

export function frameFrom(text: string): Frame {
  const [width, height] = text.split(':').map(Number) as [number, number];
  return { width, height };
}
