import type { SiteLight } from '@eskovan/core/document';
import { daylight } from '@eskovan/core/survey';
import {
  BufferAttribute,
  Color,
  CylinderGeometry,
  Group,
  Mesh,
  MeshBasicMaterial,
  SphereGeometry,
  type BufferGeometry,
} from 'three';
import { makeRadiant, type ToneUniforms } from './tone.ts';

const COAT = 0x3d5a98;
const TROUSERS = 0x39424c;
const SKIN = 0xc99b7c;
const HAIR = 0x4a382c;

/** A standing person of 1.75 m, for scale: feet at the origin, looking along −Z. */
export function makePerson(tone: ToneUniforms): Group {
  const material = new MeshBasicMaterial({ vertexColors: true, fog: false });
  makeRadiant(material, tone);
  const person = new Group();
  const add = (geometry: BufferGeometry, color: number, x: number, y: number, z = 0, turn = 0) => {
    const mesh = new Mesh(shaded(geometry.toNonIndexed(), color), material);
    mesh.position.set(x, y, z);
    mesh.rotation.z = turn;
    person.add(mesh);
  };
  const limb = (top: number, bottom: number, height: number) => new CylinderGeometry(top, bottom, height, 10, 1);
  for (const side of [-1, 1]) {
    add(limb(0.085, 0.055, 0.78), TROUSERS, side * 0.095, 0.44);
    add(new SphereGeometry(0.07, 10, 6).scale(0.8, 0.55, 1.6), HAIR, side * 0.095, 0.04, -0.04);
    add(limb(0.055, 0.04, 0.6), COAT, side * 0.245, 1.13, 0, side * 0.1);
    add(new SphereGeometry(0.05, 8, 6), SKIN, side * 0.275, 0.81);
  }
  add(new CylinderGeometry(0.2, 0.15, 0.62, 12, 1).scale(1, 1, 0.62), COAT, 0, 1.13);
  add(new SphereGeometry(0.2, 12, 6).scale(1, 0.35, 0.62), COAT, 0, 1.44);
  add(limb(0.055, 0.06, 0.12), SKIN, 0, 1.51);
  add(new SphereGeometry(0.105, 14, 10).scale(0.86, 1.18, 0.98), SKIN, 0, 1.622);
  add(new SphereGeometry(0.112, 12, 8, 0, 2 * Math.PI, 0, Math.PI * 0.5).scale(0.88, 1.05, 1), HAIR, 0, 1.632, 0.012);
  return person;
}

/** How bright a day the person's colours are meant for: an afternoon, on open ground. */
const MEANT_FOR = 0.9;

/** Shows the person in the light that falls on open ground; as it is where nothing is said. */
export function lightPerson(person: Group, light: Pick<SiteLight, 'sun' | 'sky'> | null): void {
  const { zenith, horizon, sun } = daylight(light ?? { sun: [0, 0.56, 0.83], sky: 'clear' });
  const falls = [0, 1, 2].map((k) => Math.min(1, (0.45 * (zenith[k]! + horizon[k]!) + 0.3 * sun[k]!) / MEANT_FOR));
  const { material } = person.children[0] as Mesh;
  (material as MeshBasicMaterial).color.setRGB(falls[0]!, falls[1]!, falls[2]!);
}

/** A plain light from above and the left, in the vertices. */
function shaded(geometry: BufferGeometry, color: number): BufferGeometry {
  const base = new Color(color).toArray();
  const normal = geometry.getAttribute('normal');
  const colors = new Float32Array(normal.count * 3);
  for (let v = 0; v < normal.count; v += 1) {
    const light = 0.65 + 0.3 * normal.getY(v) - 0.22 * normal.getX(v) + 0.12 * normal.getZ(v);
    for (let k = 0; k < 3; k += 1) colors[3 * v + k] = base[k]! * light;
  }
  geometry.setAttribute('color', new BufferAttribute(colors, 3));
  return geometry;
}
