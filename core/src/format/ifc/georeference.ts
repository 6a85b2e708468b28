import type { ModelBody } from '../../document/index.ts';
import { handles, type IfcNames, type Line } from './names.ts';

type Georeference = Pick<ModelBody['declares'], 'latitude' | 'longitude' | 'north' | 'map'>;

const numberOf = (value: unknown): number =>
  Number(typeof value === 'object' && value !== null && 'value' in value ? value.value : value);
const numbersOf = (line: Line | null, attribute: string): number[] => {
  const given = line?.[attribute];
  // A list is handed out as it is, or within a value of its own type.
  const list = typeof given === 'object' && given !== null && 'value' in given ? given.value : given;
  return Array.isArray(list) ? list.map(numberOf) : [];
};

/**
 * Where on earth a building stands and which way is north, as far as the file says.
 * Sources: IfcSite.RefLatitude (IfcCompoundPlaneAngleMeasure: degrees, minutes, seconds, millionths of a second),
 * IfcGeometricRepresentationContext.TrueNorth, IfcMapConversion (IFC 4, ISO 16739-1).
 */
export function georeferenceOf(names: IfcNames): Georeference {
  const { ifc } = names;
  const out: Georeference = {};
  const site = names.lines(ifc.IFCSITE)[0] ?? null;
  const [latitude, longitude] = [angle(numbersOf(site, 'RefLatitude')), angle(numbersOf(site, 'RefLongitude'))];
  // Zero and zero is what programs write that know of no place.
  if (latitude !== null && longitude !== null && Math.abs(latitude) <= 90 && (latitude !== 0 || longitude !== 0))
    Object.assign(out, { latitude, longitude });
  const map = names.lines(ifc.IFCMAPCONVERSION)[0];
  if (map) {
    const [x, y] = [numberOf(map['XAxisAbscissa']), numberOf(map['XAxisOrdinate'])];
    const turn = Number.isFinite(x) && Number.isFinite(y) && (x !== 0 || y !== 0) ? Math.atan2(y, x) : 0;
    const scale = names.metresPerUnit();
    const [east, north, height] = ['Eastings', 'Northings', 'OrthogonalHeight'].map(
      (key) => numberOf(map[key]) * scale,
    );
    if ([east, north].every(Number.isFinite))
      out.map = { east: east!, north: north!, height: Number.isFinite(height) ? height! : 0, turn };
    // The map's north in the building's axes.
    out.north = turn;
  }
  for (const context of names.lines(ifc.IFCGEOMETRICREPRESENTATIONCONTEXT)) {
    const direction = names.line(handles(context, 'TrueNorth')[0]?.value);
    const [x, y] = numbersOf(direction, 'DirectionRatios');
    if (x === undefined || y === undefined || !Number.isFinite(x) || !Number.isFinite(y) || (x === 0 && y === 0))
      continue;
    out.north = Math.atan2(x, y);
    break;
  }
  return out;
}

/** A compound angle in degrees; all its members have the same sign. Null where there is none. */
function angle([degrees, minutes = 0, seconds = 0, millionths = 0]: readonly number[]): number | null {
  if (degrees === undefined || !Number.isFinite(degrees)) return null;
  const all = degrees + minutes / 60 + (seconds + millionths / 1e6) / 3600;
  return Number.isFinite(all) ? all : null;
}
