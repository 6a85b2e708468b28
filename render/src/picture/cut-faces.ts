import { BackSide, FrontSide, Group, Mesh, MeshBasicMaterial, type Material } from 'three';

/** The ink of what is cut, linear. */
const INK = [0.018, 0.021, 0.025] as const;

/**
 * What a cut lays open: through it one sees the inner sides of solid things, which are drawn full and dark, as sections
 * are. Sheets, glass and what is cut out of pictures have no inside.
 * @returns twins of a model's pieces, which share their geometry and move along
 */
export function makeCutFaces(model: Group): Group {
  const fill = new MeshBasicMaterial({
    side: BackSide,
    fog: false,
    // A wall's foot lies on the floor that it stands on.
    polygonOffset: true,
    polygonOffsetFactor: -1,
    polygonOffsetUnits: -8,
  });
  fill.color.setRGB(...INK);
  const twins = new Group();
  for (const piece of model.children) {
    if (!(piece instanceof Mesh)) continue;
    const material = piece.material as Material;
    if (material.side !== FrontSide || material.transparent || piece.userData['depth']) continue;
    const twin = new Mesh(piece.geometry, fill);
    twin.matrixAutoUpdate = false;
    twin.matrix = piece.matrix;
    twins.add(twin);
  }
  return twins;
}

/** Frees what {@link makeCutFaces} made; the geometry belongs to the pieces. */
export function disposeCutFaces(twins: Group): void {
  const [first] = twins.children as Mesh[];
  (first?.material as Material | undefined)?.dispose();
}
