import type { Walking } from '@eskovan/core/move';
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
  Vector3,
  type Scene,
} from 'three';
import { makeRadiant, type ToneUniforms } from './tone.ts';

const COAT = 0x3d5a98;
const TROUSERS = 0x39424c;
const SKIN = 0xc99b7c;
const HAIR = 0x4a382c;

/** Where legs and arms hang from, metres over the floor. */
const HIP = 0.84;
const ARMPIT = 1.4;

/** A standing person of 1.75 m, for scale: feet at the origin, looking along −Z. */
function makePerson(material: MeshBasicMaterial): Group {
  const person = new Group();
  const swinging = (height: number, sense: number) => {
    const limbs = new Group();
    limbs.position.y = height;
    limbs.userData['sense'] = sense;
    person.add(limbs);
    return limbs;
  };
  const add = (geometry: BufferGeometry, color: number, x: number, y: number, to = person, z = 0, turn = 0) => {
    const mesh = new Mesh(shaded(geometry.toNonIndexed(), color), material);
    mesh.position.set(x, y - to.position.y, z);
    mesh.rotation.z = turn;
    to.add(mesh);
  };
  const limb = (top: number, bottom: number, height: number) => new CylinderGeometry(top, bottom, height, 10, 1);
  for (const side of [-1, 1]) {
    const [leg, arm] = [swinging(HIP, side), swinging(ARMPIT, -side)];
    add(limb(0.085, 0.055, 0.78), TROUSERS, side * 0.095, 0.44, leg);
    add(new SphereGeometry(0.07, 10, 6).scale(0.8, 0.55, 1.6), HAIR, side * 0.095, 0.04, leg, -0.04);
    add(limb(0.055, 0.04, 0.6), COAT, side * 0.245, 1.13, arm, 0, side * 0.1);
    add(new SphereGeometry(0.05, 8, 6), SKIN, side * 0.275, 0.81, arm);
  }
  add(new CylinderGeometry(0.2, 0.15, 0.62, 12, 1).scale(1, 1, 0.62), COAT, 0, 1.13);
  add(new SphereGeometry(0.2, 12, 6).scale(1, 0.35, 0.62), COAT, 0, 1.44);
  add(limb(0.055, 0.06, 0.12), SKIN, 0, 1.51);
  add(new SphereGeometry(0.105, 14, 10).scale(0.86, 1.18, 0.98), SKIN, 0, 1.622);
  const hair = new SphereGeometry(0.112, 12, 8, 0, 2 * Math.PI, 0, Math.PI * 0.5).scale(0.88, 1.05, 1);
  add(hair, HAIR, 0, 1.632, person, 0.012);
  return person;
}

/** How somebody stands somewhere; one who walks also swings their legs. Arms go the other way. */
export type Stance = Pick<Walking, 'at'> & Partial<Walking>;

/** Somebody in pictures of the working view, for scale; in those that are kept there is nobody. */
export class ScalePerson {
  private group: Group | null = null;
  private isThere = false;
  /** It is not in the open: it is as bright as a picture is meant to be. */
  private walks = false;
  private light: OpenLight | null = null;
  private readonly own: ToneUniforms;
  private readonly material = new MeshBasicMaterial({ vertexColors: true, fog: false });

  constructor(
    private readonly scene: Scene,
    private readonly tone: ToneUniforms,
  ) {
    this.own = { ...tone, gain: { value: new Vector3(1, 1, 1) } };
    makeRadiant(this.material, this.own);
  }

  /** Stands it somewhere, or lets it walk there; null takes it away. */
  stand(stance: Stance | null): void {
    this.isThere = stance !== null;
    if (!stance) return;
    if (!this.group) this.scene.add((this.group = makePerson(this.material)));
    const { at, turn = 0, swing } = stance;
    this.group.position.set(...at);
    this.group.rotation.y = turn;
    for (const limbs of this.group.children)
      if ('sense' in limbs.userData) limbs.rotation.x = (limbs.userData['sense'] as number) * (swing ?? 0);
    this.walks = swing !== undefined;
    this.lightUp();
  }

  /** The light that falls on open ground; null shows it as it is. */
  use(light: OpenLight | null): void {
    this.light = light;
    this.lightUp();
  }

  /** Before a picture is drawn, of the exposure that it has. @param working nobody keeps the picture */
  show(working: boolean): void {
    if (!this.group) return;
    this.group.visible = working && this.isThere;
    const { value: gain } = this.own.gain;
    if (this.walks) gain.setScalar(MEANT_GAIN);
    else gain.copy(this.tone.gain.value);
  }

  private lightUp(): void {
    const { color } = this.material;
    if (this.walks) {
      color.setRGB(1, 1, 1);
      return;
    }
    const { zenith, horizon, sun } = daylight(this.light ?? { sun: [0, 0.56, 0.83], sky: 'clear' });
    const falls = [0, 1, 2].map((k) => Math.min(1, (0.45 * (zenith[k]! + horizon[k]!) + 0.3 * sun[k]!) / MEANT_FOR));
    color.setRGB(falls[0]!, falls[1]!, falls[2]!);
  }
}

type OpenLight = Pick<SiteLight, 'sun' | 'sky'>;

/** How bright a day the person's colours are meant for: an afternoon, on open ground. */
const MEANT_FOR = 0.9;
/** What such a day is multiplied by in a picture. */
const MEANT_GAIN = 0.8;

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
