import type { Sensor } from '../document/index.ts';

export interface NamedSensor extends Sensor {
  name: string;
  /** Where the numbers come from. */
  source: string;
}

/** Camera sensor areas, widest use first. */
export const SENSORS: readonly NamedSensor[] = [
  { name: '135 full frame', widthMm: 36, heightMm: 24, source: 'ISO 1007' },
  { name: '35 mm film, full aperture', widthMm: 24.89, heightMm: 18.66, source: 'SMPTE ST 59, from memory' },
  { name: '16 mm film', widthMm: 10.26, heightMm: 7.49, source: 'SMPTE ST 7, from memory' },
];
