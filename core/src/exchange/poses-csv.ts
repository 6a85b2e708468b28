import { anglesOf, toDegrees } from '../geometry/index.ts';
import { writeTable } from './csv-table.ts';
import type { SentView } from './sent-view.ts';

/**
 * Poses as a table (RFC 4180, UTF-8): one line a view, metres, degrees and millimetres; the bearing clockwise from north.
 * @param north angle from the plan's −Z towards +X, radians
 */
export function writeCsv(views: readonly SentView[], north: number): string {
  const rows = views.map(({ number, name, status, note, aspect, pose, lens }) => {
    const { pan, tilt, roll } = anglesOf(pose.orientation);
    const bearing = (((toDegrees(-pan - north) % 360) + 360) % 360).toFixed(4);
    const { focalLengthMm, sensor, shift, focus, fNumber, parallel } = lens;
    const [x, y, z] = pose.position.map((value) => value.toFixed(4)) as [string, string, string];
    return {
      number,
      name,
      status,
      'x (m)': x,
      'height (m)': y,
      'z (m)': z,
      'bearing (deg)': bearing,
      'tilt (deg)': toDegrees(tilt).toFixed(4),
      'roll (deg)': toDegrees(roll).toFixed(4),
      projection: parallel === undefined ? 'perspective' : 'parallel',
      'focal length (mm)': parallel === undefined ? focalLengthMm : '',
      'height of the picture (m)': parallel ?? '',
      'sensor width (mm)': sensor.widthMm,
      'sensor height (mm)': sensor.heightMm,
      'shift right (mm)': (shift[0] * sensor.widthMm).toFixed(3),
      'shift up (mm)': (shift[1] * sensor.heightMm).toFixed(3),
      'focus (m)': focus ?? '',
      'f-number': fNumber ?? '',
      'width over height': aspect.toFixed(6),
      note: note ?? '',
    };
  });
  return writeTable(rows);
}
