import { describe, expect, test } from '@jest/globals';
import { unzipSync, strFromU8, strToU8, zipSync } from 'fflate';
import { XmlDocument, XsdValidator } from 'libxml2-wasm';
import { Matrix4, OrthographicCamera, PerspectiveCamera, Vector3, type Camera } from 'three';
import { GLTFLoader } from 'three/addons/loaders/GLTFLoader.js';
import { DEFAULT_LENS, type Lens, type Vec3 } from '../document/index.ts';
import { orientationOf } from '../geometry/index.ts';
import { Projection, throughLens } from '../optics/index.ts';
import { randomFrom } from '../random.fixture.ts';
import { EXTENSIONS, MARKUP, VERSION, VISINFO } from './bcf-schema.fixture.ts';
import { leftOutOf, readBcf, World, writeBcf, writeCameras, writeCsv, type SentView } from './index.ts';

const SIZE = { width: 1920, height: 1080 };
const ASPECT = SIZE.width / SIZE.height;
/** A file that lies turned and far from the project's own zero. */
const world = new World({ turn: 0.7, position: [-412_350, -31, 5_612_000] });
const order = { world, author: 'Ternholm studio', date: new Date('2026-11-27T09:00:00Z') };

const id = (i: number) => `0f7a52c1-4b1e-4c55-9a33-00000000000${i}`;
const view = (
  i: number,
  lens: Partial<Lens>,
  angles: { pan: number; tilt: number; roll: number },
  name = `View ${i}`,
): SentView => ({
  id: id(i),
  number: i,
  name,
  status: 'ready',
  aspect: ASPECT,
  pose: { position: [3.25 * i, 1.6 + i, -2.5], orientation: orientationOf(angles) },
  lens: { ...DEFAULT_LENS, ...lens },
});
const views = [
  view(1, { focalLengthMm: 24 }, { pan: 0.4, tilt: 0, roll: 0 }, 'Hall & “terns” <first>'),
  view(2, { focalLengthMm: 85 }, { pan: -2.6, tilt: -0.3, roll: 0.12 }),
  view(3, { parallel: 14.5, nearCut: 2, farCut: 60 }, { pan: 2.2, tilt: -0.61, roll: 0 }),
];

/** Points all about what a view sees. */
const pointsBefore = ({ pose, lens }: SentView): Vec3[] => {
  const rnd = randomFrom(3);
  const projection = new Projection(throughLens(lens), ASPECT, pose.position, pose.orientation);
  return Array.from({ length: 60 }, () => {
    const { from, direction } = projection.ray(2 * rnd() - 1, 2 * rnd() - 1);
    const distance = 2 + 30 * rnd();
    return from.map((value, k) => value + direction[k]! * distance) as Vec3;
  });
};
const pixels = ({ x, y }: { x: number; y: number }) => [((x + 1) / 2) * SIZE.width, ((1 - y) / 2) * SIZE.height];
/** How far another camera draws the points of a view from where we draw them, pixels. */
function worstPixels(sent: SentView, camera: Camera, as: (point: Vec3) => Vec3): number {
  camera.updateMatrixWorld(true);
  const ours = new Projection(throughLens(sent.lens), ASPECT, sent.pose.position, sent.pose.orientation);
  return Math.max(
    ...pointsBefore(sent).map((point) => {
      const [a, b] = [pixels(ours.project(point)), pixels(new Vector3(...as(point)).project(camera))];
      return Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!);
    }),
  );
}

describe('views as BCF', () => {
  const files = unzipSync(writeBcf(views, order));
  const text = (path: string) => strFromU8(files[path]!);

  test('every file is valid by its schema; a broken one is not', () => {
    const valid = (xsd: string, xml: string) => {
      const [schema, document] = [XmlDocument.fromString(xsd), XmlDocument.fromString(xml)];
      const validator = XsdValidator.fromDoc(schema);
      try {
        validator.validate(document);
      } finally {
        for (const used of [validator, document, schema]) used.dispose();
      }
    };
    valid(VERSION, text('bcf.version'));
    valid(EXTENSIONS, text('extensions.xml'));
    for (const { id } of views) {
      valid(MARKUP, text(`${id}/markup.bcf`));
      valid(VISINFO, text(`${id}/viewpoint.bcfv`));
    }
    expect(() =>
      valid(VISINFO, text(`${id(1)}/viewpoint.bcfv`).replace(/<AspectRatio>.*<\/AspectRatio>/, '')),
    ).toThrow();
    expect(() => valid(MARKUP, text(`${id(1)}/markup.bcf`).replace(' TopicStatus="Ready"', ''))).toThrow();
  });

  test('another reader draws the same points at the same pixels, turned and 5,600 km from zero', () => {
    for (const sent of views) {
      // libxml2 reads it, three draws it: nothing of ours.
      using document = disposable(XmlDocument.fromString(text(`${sent.id}/viewpoint.bcfv`)));
      const number = (path: string) => Number(document.value.get(`//${path}`)!.content);
      const vector = (path: string) => ['X', 'Y', 'Z'].map((axis) => number(`${path}/${axis}`)) as Vec3;
      const position = vector('CameraViewPoint');
      const camera = document.value.get('//PerspectiveCamera')
        ? new PerspectiveCamera(number('FieldOfView'), number('AspectRatio'), 0.1, 500)
        : orthographic(number('ViewToWorldScale'), number('AspectRatio'));
      camera.up.set(...vector('CameraUpVector'));
      // Near its own place: three has 32-bit matrices.
      camera.lookAt(...vector('CameraDirection'));
      camera.updateProjectionMatrix();
      const near = (point: Vec3) => world.place(point).map((value, k) => value - position[k]!) as Vec3;
      expect(worstPixels(sent, camera, near)).toBeLessThan(0.1);
    }
  });

  test('what is cut off is said as planes that point to what is taken away', () => {
    using document = disposable(XmlDocument.fromString(text(`${id(3)}/viewpoint.bcfv`)));
    const planes = document.value.find('//ClippingPlane');
    expect(planes).toHaveLength(2);
    const vector = (name: string, k: number) =>
      ['X', 'Y', 'Z'].map((axis) => Number(document.value.get(`(//ClippingPlane)[${k}]/${name}/${axis}`)!.content));
    const { pose, lens } = views[2]!;
    const ahead = world.direction(
      new Projection(throughLens(lens), 1, pose.position, pose.orientation).fromAxes([0, 0, 1]),
    );
    vector('Direction', 1).forEach((value, k) => expect(value).toBeCloseTo(-ahead[k]!, 9));
    const eye = world.place(pose.position);
    const away = vector('Location', 2).reduce((sum, value, k) => sum + (value - eye[k]!) * ahead[k]!, 0);
    expect(away).toBeCloseTo(60, 6);
  });

  test('comes back as it went, with its name', () => {
    const { views: back, leftOut } = readBcf(writeBcf(views, order), 'views.bcfzip', world, 1);
    expect(leftOut).toEqual([]);
    expect(back.map(({ name }) => name)).toEqual(views.map(({ name }) => name));
    back.forEach(({ pose, lens, aspect }, i) => {
      const sent = views[i]!;
      pose.position.forEach((value, k) => expect(value).toBeCloseTo(sent.pose.position[k]!, 6));
      const dot = pose.orientation.reduce((sum, value, k) => sum + value * sent.pose.orientation[k]!, 0);
      expect(Math.abs(dot)).toBeCloseTo(1, 9);
      expect(aspect).toBeCloseTo(ASPECT, 9);
      if (sent.lens.parallel === undefined) expect(lens.focalLengthMm).toBeCloseTo(sent.lens.focalLengthMm, 9);
      else expect(lens.parallel).toBeCloseTo(sent.lens.parallel, 9);
    });
  });

  test('a file of version 2.1 by another hand, and what of it cannot be used', () => {
    const camera = (angle: string) => `<?xml version="1.0"?><VisualizationInfo Guid="${id(5)}"><PerspectiveCamera>
      <CameraViewPoint><X>10</X><Y>20</Y><Z>1.7</Z></CameraViewPoint><CameraDirection><X>0</X><Y>1</Y><Z>0</Z></CameraDirection>
      <CameraUpVector><X>0</X><Y>0</Y><Z>1</Z></CameraUpVector><FieldOfView>${angle}</FieldOfView></PerspectiveCamera></VisualizationInfo>`;
    const markup = (title: string, points: string) =>
      `<Markup><Topic Guid="${id(5)}"><Title>${title}</Title></Topic>${points}</Markup>`;
    const point = (file: string) => `<Viewpoints Guid="${id(6)}"><Viewpoint>${file}</Viewpoint></Viewpoints>`;
    const zip = zipSync({
      'a/markup.bcf': strToU8(markup('North door', point('one.bcfv') + point('two.bcfv') + point('gone.bcfv'))),
      'a/one.bcfv': strToU8(camera('60')),
      'a/two.bcfv': strToU8(camera('wide')),
      'b/markup.bcf': strToU8(markup('Only words', '')),
      'c/markup.bcf': strToU8('<Markup><Topic>'),
    });
    const { views: back, leftOut } = readBcf(zip, 'theirs.bcfzip', new World(), 4 / 3);
    expect(back).toHaveLength(1);
    expect(back[0]!.name).toBe('North door 1');
    // North is −Z here.
    expect(back[0]!.pose.position).toEqual([10, expect.closeTo(1.7, 9), -20]);
    const { direction } = new Projection(throughLens(back[0]!.lens), 4 / 3, [0, 0, 0], back[0]!.pose.orientation).ray(
      0,
      1,
    );
    expect((180 / Math.PI) * Math.atan2(direction[1], -direction[2])).toBeCloseTo(30, 6);
    expect(leftOut).toEqual([
      expect.stringContaining('“North door 2”: its camera’s FieldOfView'),
      expect.stringContaining('“gone.bcfv” is not in the file'),
      expect.stringContaining('c/markup.bcf: it is no whole XML'),
    ]);
  });

  test.each([
    ['notes.txt', strToU8('hello'), /notes\.txt: it is no BCF file/],
    ['empty.bcf', zipSync({ 'readme.txt': strToU8('x') }), /empty\.bcf: it holds no topics/],
    [
      'torn.bcf',
      zipSync({ 'a/markup.bcf': strToU8('x'.repeat(500)) }).subarray(0, 60),
      /torn\.bcf: it cannot be unpacked/,
    ],
  ])('%s is refused in words', (name, bytes, message) => {
    expect(() => readBcf(bytes, name, world, ASPECT)).toThrow(message);
  });
});

const orthographic = (height: number, aspect: number) =>
  new OrthographicCamera((-height * aspect) / 2, (height * aspect) / 2, height / 2, -height / 2, 0.1, 500);
const disposable = <T extends { dispose(): void }>(value: T) => ({ value, [Symbol.dispose]: () => value.dispose() });

test('views as cameras of a GLB: three’s loader draws the same points at the same pixels', async () => {
  const bytes = await writeCameras(views, 'Ternholm');
  const { cameras, scene } = await new GLTFLoader().parseAsync(bytes.buffer, '');
  scene.updateMatrixWorld(true);
  expect(cameras.map(({ name }) => name)).toHaveLength(3);
  views.forEach((sent, i) => {
    const camera = cameras[i]! as PerspectiveCamera;
    expect(worstPixels(sent, camera, (point) => point)).toBeLessThan(0.1);
    expect(new Matrix4().copy(camera.matrixWorld).determinant()).toBeCloseTo(1, 6);
  });
});

test('a shifted lens is named as what these formats cannot say', () => {
  const shifted = view(4, { shift: [0, 0.2] }, { pan: 0, tilt: 0, roll: 0 }, 'Tower');
  expect(leftOutOf([...views, shifted])).toEqual({ shifted: ['Tower'] });
});

test('poses as a table: RFC 4180, bearings from the project’s north, nothing that a table program would compute', () => {
  const table = writeCsv([...views, view(4, {}, { pan: -Math.PI / 2, tilt: 0, roll: 0 }, '=1+1, "x"')], Math.PI / 2);
  const lines = table.trimEnd().split('\r\n');
  expect(lines).toHaveLength(5);
  const head = lines[0]!.split(',');
  const cell = (line: number, name: string) => lines[line]!.split(',')[head.indexOf(name)];
  expect(cell(2, 'focal length (mm)')).toBe('85');
  expect(cell(2, 'tilt (deg)')).toBe((-0.3 * (180 / Math.PI)).toFixed(4));
  expect(cell(3, 'height of the picture (m)')).toBe('14.5');
  // Looking along +X, and north is +X.
  expect(lines[4]).toContain(',0.0000,');
  expect(lines[4]).toContain('"\'=1+1, ""x"""');
  expect(lines[1]).toContain('Hall & “terns” <first>');
});
