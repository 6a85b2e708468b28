import * as ifc from 'web-ifc';

type Triple = readonly [number, number, number];
interface Box {
  name: string;
  type: 'wall' | 'slab' | 'door';
  from: Triple;
  to: Triple;
}
interface Space {
  name: string;
  /** Corners in plan, metres. */
  outline: readonly (readonly [number, number])[];
  elevation: number;
}

/** One for all files of a test: starting it takes longer than writing. */
let writer: Promise<ifc.IfcAPI> | null = null;
async function open(): Promise<ifc.IfcAPI> {
  const api = new ifc.IfcAPI();
  await api.Init();
  api.SetLogLevel(ifc.LogLevel.LOG_LEVEL_OFF);
  return api;
}

/**
 * A house as IFC 4, written by web-ifc from boxes: metres here, millimetres in the file, Z up. `storeys` by name and
 * height; every box and space belongs to the storey that it stands on; `at` is where the site is placed.
 */
export async function writeIfc(
  storeys: readonly { name: string; elevation: number }[],
  boxes: readonly Box[],
  spaces: readonly Space[],
  at: readonly [number, number, number] = [0, 0, 0],
): Promise<Uint8Array> {
  const api = await (writer ??= open());
  const model = api.CreateModel({ schema: ifc.Schemas.IFC4 });
  const I = ifc.IFC4;
  let serial = 0;
  const mm = (metres: number) => new I.IfcLengthMeasure(Math.round(metres * 1000));
  const guid = () => new I.IfcGloballyUniqueId(`${String((serial += 1)).padStart(22, '0')}`);
  const label = (text: string) => new I.IfcLabel(text);
  const point = (...xyz: number[]) => new I.IfcCartesianPoint(xyz.map(mm));
  const direction = (...xyz: number[]) => new I.IfcDirection(xyz.map((v) => new I.IfcReal(v)));
  const axes = (x: number, y: number, z: number) =>
    new I.IfcAxis2Placement3D(point(x, y, z), direction(0, 0, 1), direction(1, 0, 0));
  const place = (z: number, under: ifc.IFC4.IfcLocalPlacement | null) => new I.IfcLocalPlacement(under, axes(0, 0, z));
  const context = new I.IfcGeometricRepresentationContext(
    null,
    label('Model'),
    new I.IfcDimensionCount(3),
    new I.IfcReal(1e-5),
    axes(0, 0, 0),
    null,
  );
  const unit = new I.IfcSIUnit(I.IfcUnitEnum.LENGTHUNIT, I.IfcSIPrefix.MILLI, I.IfcSIUnitName.METRE);
  const project = new I.IfcProject(
    guid(),
    null,
    label('House'),
    null,
    null,
    null,
    null,
    [context],
    new I.IfcUnitAssignment([unit]),
  );
  const ground = new I.IfcLocalPlacement(null, axes(...at));
  const site = new I.IfcSite(
    guid(),
    null,
    label('Site'),
    null,
    null,
    ground,
    null,
    null,
    I.IfcElementCompositionEnum.ELEMENT,
    null,
    null,
    null,
    null,
    null,
  );
  const building = new I.IfcBuilding(
    guid(),
    null,
    label('House'),
    null,
    null,
    ground,
    null,
    null,
    I.IfcElementCompositionEnum.ELEMENT,
    null,
    null,
    null,
  );
  const levels = storeys.map(({ name, elevation }) => {
    const placement = place(elevation, ground);
    const storey = new I.IfcBuildingStorey(
      guid(),
      null,
      label(name),
      null,
      null,
      placement,
      null,
      null,
      I.IfcElementCompositionEnum.ELEMENT,
      mm(elevation),
    );
    return { elevation, placement, storey, elements: [] as ifc.IFC4.IfcProduct[], spaces: [] as ifc.IFC4.IfcProduct[] };
  });
  const levelOf = (z: number) => levels.filter(({ elevation }) => elevation <= z + 0.5).at(-1) ?? levels[0]!;
  const solid = (outline: readonly (readonly [number, number])[], z: number, height: number) => {
    const ring = [...outline, outline[0]!].map(([x, y]) => point(x, y));
    const profile = new I.IfcArbitraryClosedProfileDef(I.IfcProfileTypeEnum.AREA, null, new I.IfcPolyline(ring));
    const extruded = new I.IfcExtrudedAreaSolid(
      profile,
      axes(0, 0, z),
      direction(0, 0, 1),
      new I.IfcPositiveLengthMeasure(Math.round(height * 1000)),
    );
    return new I.IfcProductDefinitionShape(null, null, [
      new I.IfcShapeRepresentation(context, label('Body'), label('SweptSolid'), [extruded]),
    ]);
  };
  for (const { name, type, from, to } of boxes) {
    const level = levelOf(from[2]);
    const shape = solid(
      [
        [from[0], from[1]],
        [to[0], from[1]],
        [to[0], to[1]],
        [from[0], to[1]],
      ],
      from[2] - level.elevation,
      to[2] - from[2],
    );
    const placement = new I.IfcLocalPlacement(level.placement, axes(0, 0, 0));
    level.elements.push(
      type === 'wall'
        ? new I.IfcWall(guid(), null, label(name), null, null, placement, shape, null, null)
        : type === 'slab'
          ? new I.IfcSlab(guid(), null, label(name), null, null, placement, shape, null, null)
          : new I.IfcDoor(guid(), null, label(name), null, null, placement, shape, null, null, null, null, null, null),
    );
  }
  for (const { name, outline, elevation } of spaces) {
    const level = levelOf(elevation);
    const placement = new I.IfcLocalPlacement(level.placement, axes(0, 0, 0));
    level.spaces.push(
      new I.IfcSpace(
        guid(),
        null,
        label(name),
        null,
        null,
        placement,
        solid(outline, elevation - level.elevation, 2.4),
        label(name),
        I.IfcElementCompositionEnum.ELEMENT,
        null,
        null,
      ),
    );
  }
  // Writing turns objects into references: what is needed of them afterwards is taken before.
  const walls = levels.flatMap(({ elements }) => elements.filter((element) => element instanceof I.IfcWall));
  const under = (whole: ifc.IFC4.IfcObjectDefinition, parts: ifc.IFC4.IfcObjectDefinition[]) =>
    api.WriteLine(model, new I.IfcRelAggregates(guid(), null, null, null, whole, parts));
  under(project, [site]);
  under(site, [building]);
  under(
    building,
    levels.map(({ storey }) => storey),
  );
  for (const { storey, elements, spaces: rooms } of levels) {
    if (rooms.length > 0) under(storey, rooms);
    if (elements.length > 0)
      api.WriteLine(model, new I.IfcRelContainedInSpatialStructure(guid(), null, null, null, elements, storey));
  }
  api.WriteLine(
    model,
    new I.IfcRelAssociatesMaterial(guid(), null, null, null, walls, new I.IfcMaterial(label('Brick'), null, null)),
  );
  const bytes = api.SaveModel(model);
  api.CloseModel(model);
  return bytes;
}
