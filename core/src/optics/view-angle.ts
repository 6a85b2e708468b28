import type { Lens, Sensor } from '../document/index.ts';

/**
 * Angle seen across a length of sensor, radians: 2·atan(d / 2f).
 * @param sizeMm extent of the sensor in the wanted direction, mm
 * @param focalLengthMm focal length, mm
 */
export function viewAngle(sizeMm: number, focalLengthMm: number): number {
  return 2 * Math.atan(sizeMm / (2 * focalLengthMm));
}

/** Focal length that sees `angle` radians across `sizeMm` of sensor, mm. */
export function focalLengthFor(angle: number, sizeMm: number): number {
  return sizeMm / (2 * Math.tan(angle / 2));
}

/**
 * The part of the sensor that a picture of the given aspect (width / height) uses: the largest such rectangle.
 * A 16:9 picture on 36 × 24 uses 36 × 20.25.
 */
export function usedSensor(sensor: Sensor, aspect: number): Sensor {
  const sensorAspect = sensor.widthMm / sensor.heightMm;
  return aspect >= sensorAspect
    ? { widthMm: sensor.widthMm, heightMm: sensor.widthMm / aspect }
    : { widthMm: sensor.heightMm * aspect, heightMm: sensor.heightMm };
}

export interface ViewAngles {
  /** radians */
  horizontal: number;
  /** radians */
  vertical: number;
  /** radians */
  diagonal: number;
}

/** The three view angles of a lens for a picture of the given aspect (default: the whole sensor). */
export function viewAngles(lens: Lens, aspect = lens.sensor.widthMm / lens.sensor.heightMm): ViewAngles {
  const { widthMm, heightMm } = usedSensor(lens.sensor, aspect);
  return {
    horizontal: viewAngle(widthMm, lens.focalLengthMm),
    vertical: viewAngle(heightMm, lens.focalLengthMm),
    diagonal: viewAngle(Math.hypot(widthMm, heightMm), lens.focalLengthMm),
  };
}
