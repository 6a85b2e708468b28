import type { SunSetting } from '../document/index.ts';

const DEGREE = Math.PI / 180;
const turn = (degrees: number) => ((degrees % 360) + 360) % 360;

export interface SunPosition {
  /** Clockwise from north, radians. */
  azimuth: number;
  /** Above the horizon, with refraction, radians; negative at night. */
  altitude: number;
}

/**
 * Where the sun stands, good to about 0.01° between 1900 and 2100.
 * Source: Meeus 1998, "Astronomical Algorithms", chapters 12, 13, 16, 22 and 25 (low accuracy); refraction after
 * Sæmundsson. The difference between dynamical and universal time is left out: 70 s are 0.0008° of the sun's way.
 */
export function sunPosition(instant: Date, latitude: number, longitude: number): SunPosition {
  const julianDay = instant.getTime() / 86_400_000 + 2_440_587.5;
  const t = (julianDay - 2_451_545) / 36_525;
  const meanLongitude = turn(280.46646 + t * (36_000.76983 + 0.0003032 * t));
  const anomaly = turn(357.52911 + t * (35_999.05029 - 0.0001537 * t)) * DEGREE;
  const centre =
    (1.914602 - t * (0.004817 + 0.000014 * t)) * Math.sin(anomaly) +
    (0.019993 - 0.000101 * t) * Math.sin(2 * anomaly) +
    0.000289 * Math.sin(3 * anomaly);
  const node = (125.04 - 1934.136 * t) * DEGREE;
  const apparent = (meanLongitude + centre - 0.00569 - 0.00478 * Math.sin(node)) * DEGREE;
  const obliquity =
    (23 + (26 + (21.448 - t * (46.815 + t * (0.00059 - 0.001813 * t))) / 60) / 60 + 0.00256 * Math.cos(node)) * DEGREE;
  const rightAscension = Math.atan2(Math.cos(obliquity) * Math.sin(apparent), Math.cos(apparent));
  const declination = Math.asin(Math.sin(obliquity) * Math.sin(apparent));
  // Sidereal time at Greenwich, degrees (chapter 12), with the nutation's share of it.
  const sidereal =
    280.46061837 +
    360.98564736629 * (julianDay - 2_451_545) +
    0.000387933 * t * t -
    0.00478 * Math.sin(node) * Math.cos(obliquity);
  const hourAngle = turn(sidereal + longitude) * DEGREE - rightAscension;
  const phi = latitude * DEGREE;
  const sine = Math.sin(phi) * Math.sin(declination) + Math.cos(phi) * Math.cos(declination) * Math.cos(hourAngle);
  const geometric = Math.asin(Math.max(-1, Math.min(1, sine)));
  const azimuth = Math.atan2(
    Math.sin(hourAngle),
    Math.cos(hourAngle) * Math.sin(phi) - Math.tan(declination) * Math.cos(phi),
  );
  return { azimuth: azimuth + Math.PI, altitude: geometric + refraction(geometric) };
}

/** Lift of the sun by the air at 10 °C and 1010 hPa, radians; nothing well below the horizon. */
function refraction(altitude: number): number {
  const degrees = altitude / DEGREE;
  if (degrees < -1) return 0;
  return (1.02 / Math.tan((degrees + 10.3 / (degrees + 5.11)) * DEGREE) / 60) * DEGREE;
}

/** Unit vector towards the sun in the project's axes (X right, Y up, Z down on the plan). */
export function sunDirection(setting: SunSetting): [number, number, number] {
  const { azimuth, altitude } = sunPosition(new Date(setting.instant), setting.latitude, setting.longitude);
  const bearing = azimuth + setting.north;
  const level = Math.cos(altitude);
  return [level * Math.sin(bearing), Math.sin(altitude), -level * Math.cos(bearing)];
}
