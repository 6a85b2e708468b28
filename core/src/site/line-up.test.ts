import { describe, expect, test } from '@jest/globals';
import { ownName, AS_IT_CAME, FIRST_WALKER, type Bounds } from '../document/index.ts';
import { writeIfc } from '../format/ifc/ifc-house.fixture.ts';
import { ownBounds, readModel, type ReadModel } from '../format/index.ts';
import { surveyModel } from '../survey/index.ts';
import { assemble, asBefore, changesOfFile, lineUp, ownOffset } from './index.ts';

const STOREYS = [{ name: 'Ground', elevation: 0 }];
const HOUSE = [
  { name: 'First wall', type: 'wall', from: [0, 0, 0], to: [8, 0.3, 2.6] },
  { name: 'North wall', type: 'wall', from: [0, 5.7, 0], to: [8, 6, 2.6] },
  { name: 'West wall', type: 'wall', from: [0, 0.3, 0], to: [0.3, 5.7, 2.6] },
  { name: 'East wall', type: 'wall', from: [7.7, 0.3, 0], to: [8, 5.7, 2.6] },
  { name: 'Floor', type: 'slab', from: [0, 0, -0.2], to: [8, 6, 0] },
  { name: 'Ceiling', type: 'slab', from: [0, 0, 2.6], to: [8, 6, 2.8] },
] as const;
const FAR = [512_340.125, 6_021_077.5, 41.25] as const;

const ifc = async (
  boxes: Parameters<typeof writeIfc>[1],
  at: Parameters<typeof writeIfc>[3] = [0, 0, 0],
  storeys: Parameters<typeof writeIfc>[0] = STOREYS,
  change: (text: string) => string = (text) => text,
): Promise<ReadModel> => {
  const text = change(new TextDecoder().decode(await writeIfc(storeys, boxes, [], at)));
  return readModel(new TextEncoder().encode(text), 'house.ifc');
};

const place = (model: ReadModel, others: Parameters<typeof lineUp>[3] = []) =>
  lineUp(ownBounds(model)!, model.declares, AS_IT_CAME, others);
const measured = (model: ReadModel) => ({
  bounds: ownBounds(model)!,
  triangles: 0,
  declares: model.declares,
  names: model.parts.map(({ name }) => ownName(name)),
});

/** Where the parts of a name come to lie, metres. */
function placeOf(model: ReadModel, name: string, placement = place(model)): Bounds {
  const site = assemble([{ id: 'a', model, placement }]);
  const part = site.parts.find((one) => one.name.endsWith(name))!;
  return ownBounds({ ...site, parts: [part] })!;
}
const close = (a: Bounds, b: Bounds, metres = 1e-4) => {
  for (const k of [0, 1, 2] as const)
    expect(Math.max(Math.abs(a.min[k] - b.min[k]), Math.abs(a.max[k] - b.max[k]))).toBeLessThan(metres);
};

// Outside check: files by web-ifc's own writer; georeference by hand.
describe('models lie by their own coordinates', () => {
  test('an IFC whose first element is gone moves nothing; one that has grown a storey neither', async () => {
    const before = await ifc(HOUSE);
    const placement = place(before);
    expect(placement.position).toEqual([0, 0, 0]);
    const fewer = await ifc(HOUSE.slice(1));
    close(placeOf(fewer, 'East wall', placement), placeOf(before, 'East wall', placement));
    const higher = await ifc(
      [...HOUSE, { name: 'Upper wall', type: 'wall', from: [0, 0, 2.8], to: [8, 0.3, 5.4] }],
      [0, 0, 0],
      [...STOREYS, { name: 'Upper', elevation: 2.8 }],
    );
    close(placeOf(higher, 'East wall', placement), placeOf(before, 'East wall', placement));
    const changes = changesOfFile(measured(before), measured(higher), placement);
    expect(changes.grew.map((value) => Math.round(value * 1000))).toEqual([0, 2600, 0]);
    expect([changes.came, changes.went]).toEqual([['Upper wall'], []]);
    expect(changesOfFile(measured(before), measured(fewer), placement).went).toEqual([HOUSE[0]!.name]);
    expect(changesOfFile({ ...measured(before), names: null }, measured(fewer), placement).went).toEqual([]);
  });

  test('a file that has moved as a whole says so, and can be kept where it was', async () => {
    const [before, after] = [await ifc(HOUSE), await ifc(HOUSE, [3, 0, 0])];
    const placement = place(before);
    const changes = changesOfFile(measured(before), measured(after), placement);
    expect(changes.moved.map((value) => Math.round(value * 1000))).toEqual([3000, 0, 0]);
    close(placeOf(after, 'East wall', asBefore(changes, placement)), placeOf(before, 'East wall', placement));
  });

  test('a site placed five hundred kilometres away measures the same, and its offset is kept', async () => {
    const [near, far] = [await ifc(HOUSE), await ifc(HOUSE, FAR)];
    const placement = place(far);
    // What the file says is found again by adding what was taken off.
    const { zero } = ownOffset(ownBounds(far)!, placement)!;
    const east = placeOf(far, 'East wall', placement);
    expect(east.min[0] + zero[0]).toBeCloseTo(FAR[0] + 7.7, 3);
    expect(-(east.max[2] + zero[2])).toBeCloseTo(FAR[1] + 0.3, 3);
    const survey = (model: ReadModel, at: typeof placement) =>
      surveyModel(assemble([{ id: 'a', model, placement: at }]), FIRST_WALKER).survey;
    const [here, there] = [survey(near, place(near)), survey(far, placement)];
    for (const k of [0, 1, 2] as const)
      expect(there.bounds.max[k] - there.bounds.min[k]).toBeCloseTo(here.bounds.max[k] - here.bounds.min[k], 4);
    // Areas are counted on a grid whose cells lie otherwise there: to a part in five hundred.
    const [area, other] = [here, there].map(({ storeys }) => storeys[0]!.rooms[0]!.area) as [number, number];
    expect(Math.abs(other / area - 1)).toBeLessThan(0.002);
  });

  test('a second file of the same place lines up with the first', async () => {
    const [house, garden] = [
      await ifc(HOUSE, FAR),
      await ifc([{ name: 'Shed', type: 'wall', from: [20, 0, 0], to: [22, 2, 2] }], FAR),
    ];
    const first = { ...measured(house), placement: place(house) };
    const second = place(garden, [first]);
    expect(second.position).toEqual(first.placement.position);
    const [wall, shed] = [placeOf(house, 'East wall', first.placement), placeOf(garden, 'Shed', second)];
    expect(shed.min[0] - wall.min[0]).toBeCloseTo(20 - 7.7, 4);
  });

  test('files with zeros of their own are put beside each other by their map', async () => {
    const onMap = (east: number, north: number, degrees: number) => (text: string) => {
      const context = /#(\d+)=IFCGEOMETRICREPRESENTATIONCONTEXT/.exec(text)![1];
      const [x, y] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
      return text.replace(
        /ENDSEC;\s*END-ISO/,
        `#900001=IFCPROJECTEDCRS('EPSG:25832',$,$,$,$,$,$);\n#900002=IFCMAPCONVERSION(#${context},#900001,${east * 1000}.,${north * 1000}.,0.,${x.toFixed(9)},${y.toFixed(9)},$);\nENDSEC;\nEND-ISO`,
      );
    };
    const house = await ifc(HOUSE, [0, 0, 0], STOREYS, onMap(500_000, 6_000_000, 30));
    const shed = await ifc(
      [{ name: 'Shed', type: 'wall', from: [0, 0, 0], to: [2, 2, 2] }],
      [0, 0, 0],
      STOREYS,
      onMap(500_010, 6_000_000, 0),
    );
    expect(house.declares.map).toMatchObject({ east: 500_000, north: 6_000_000, turn: expect.closeTo(Math.PI / 6, 6) });
    const first = { ...measured(house), placement: place(house) };
    const second = place(shed, [first]);
    // Ten metres east on the map; the house's own axes are turned by thirty degrees, and it lies straight in the project.
    const [x, , z] = second.position;
    expect(x).toBeCloseTo(10 * Math.cos(Math.PI / 6), 3);
    expect(-z).toBeCloseTo(-10 * Math.sin(Math.PI / 6), 3);
    expect(second.turn).toBeCloseTo(-Math.PI / 6, 6);
  });

  test('the place on earth and the north of a site are read', async () => {
    const model = await ifc(HOUSE, [0, 0, 0], STOREYS, (text) =>
      text
        .replace(/(IFCSITE\([^;]*?\.ELEMENT\.,)\$,\$,/, '$1(54,19,12,500000),(9,-6,-36),')
        .replace(
          /(IFCGEOMETRICREPRESENTATIONCONTEXT\([^;]*),\$\);/,
          '$1,#900003);\n#900003=IFCDIRECTION((0.5,0.8660254));',
        ),
    );
    expect(model.declares.latitude).toBeCloseTo(54 + 19 / 60 + 12.5 / 3600, 9);
    expect(model.declares.longitude).toBeCloseTo(9 - 6 / 60 - 36 / 3600, 9);
    expect(model.declares.north).toBeCloseTo(Math.PI / 6, 6);
  });
});
