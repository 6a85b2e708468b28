import type { IfcAPI } from 'web-ifc';
import type { ScenePart, SceneStorey } from '../scene-model.ts';

type Ifc = typeof import('web-ifc');
/** A line of an IFC file as web-ifc hands it out: attributes by name, references as handles. */
export type Line = Record<string, unknown> & { expressID: number };
interface Handle {
  value: number;
}

const text = (line: Line | null, attribute: string): string => {
  const value = (line?.[attribute] as { value?: unknown } | null | undefined)?.value;
  return typeof value === 'string' ? value.trim() : '';
};
export const handles = (line: Line, attribute: string): Handle[] => {
  const value = line[attribute];
  return (Array.isArray(value) ? value : value ? [value] : []) as Handle[];
};

/** What things in an IFC are called and where they belong. */
export class IfcNames {
  /** Name of the storey that an element is in. */
  private readonly storeyOf = new Map<number, string>();
  private readonly materialOf = new Map<number, string>();

  constructor(
    private readonly api: IfcAPI,
    readonly ifc: Ifc,
    private readonly model: number,
  ) {
    for (const relation of this.lines(ifc.IFCRELCONTAINEDINSPATIALSTRUCTURE)) {
      const structure = this.line(handles(relation, 'RelatingStructure')[0]?.value);
      const name = text(structure, 'Name') || text(structure, 'LongName');
      for (const { value } of handles(relation, 'RelatedElements')) this.storeyOf.set(value, name);
    }
    for (const relation of this.lines(ifc.IFCRELASSOCIATESMATERIAL)) {
      const name = this.materialName(handles(relation, 'RelatingMaterial')[0]?.value, 0);
      if (name) for (const { value } of handles(relation, 'RelatedObjects')) this.materialOf.set(value, name);
    }
  }

  element(id: number): { name: string; role: ScenePart['role']; material: string } {
    const code = this.api.GetLineType(this.model, id) as number;
    const type = (this.api.GetNameFromTypeCode(code) || 'Element').replace(/^Ifc/i, '').replace(/StandardCase$/i, '');
    const kind = type.charAt(0).toUpperCase() + type.slice(1).toLowerCase();
    const own = text(this.line(id), 'Name') || kind;
    return {
      name: [this.storeyOf.get(id), kind, own].filter(Boolean).join(' / '),
      role: ROLES[kind],
      material: this.materialOf.get(id) ?? kind,
    };
  }

  space(id: number): string {
    const line = this.line(id);
    return (text(line, 'LongName') || text(line, 'Name') || 'Room').slice(0, 80);
  }

  /** Storeys by their own placement, in metres, y up, in the file's own coordinates. */
  storeys(): SceneStorey[] {
    const scale = this.metresPerUnit();
    return this.lines(this.ifc.IFCBUILDINGSTOREY)
      .map((line) => {
        const placement = handles(line, 'ObjectPlacement')[0];
        const height =
          placement === undefined
            ? Number((line['Elevation'] as { value?: unknown } | null)?.value ?? 0)
            : this.heightOf(placement.value, 0);
        return {
          name: (text(line, 'Name') || text(line, 'LongName') || 'Storey').slice(0, 80),
          elevation: height * scale,
        };
      })
      .filter(({ elevation }) => Number.isFinite(elevation))
      .sort((a, b) => a.elevation - b.elevation);
  }

  /** Height of a chain of local placements, in the file's unit. Storeys are stacked upright. */
  private heightOf(placement: number, depth: number): number {
    const line = this.line(placement);
    if (!line || depth > 20) return 0;
    const relative = this.line(handles(line, 'RelativePlacement')[0]?.value);
    const point = relative && this.line(handles(relative, 'Location')[0]?.value);
    const coordinates = (point?.['Coordinates'] as { value: number }[] | undefined) ?? [];
    const parent = handles(line, 'PlacementRelTo')[0];
    return Number(coordinates[2]?.value ?? 0) + (parent ? this.heightOf(parent.value, depth + 1) : 0);
  }

  /** Metres in the file's unit of length. */
  metresPerUnit(): number {
    for (const assignment of this.lines(this.ifc.IFCUNITASSIGNMENT))
      for (const { value } of handles(assignment, 'Units')) {
        const unit = this.line(value);
        if (!unit || text(unit, 'UnitType') !== 'LENGTHUNIT') continue;
        const conversion = this.line(handles(unit, 'ConversionFactor')[0]?.value);
        if (conversion) return Number((conversion['ValueComponent'] as { value?: unknown } | null)?.value) || 1;
        return PREFIXES[text(unit, 'Prefix')] ?? 1;
      }
    return 1;
  }

  /** The name behind a material, a layer set or a list: the first one that has a name. */
  private materialName(id: number | undefined, depth: number): string {
    const line = this.line(id);
    if (!line || depth > 6) return '';
    const own = text(line, 'Name');
    if (own && !('MaterialLayers' in line) && !('MaterialConstituents' in line)) return own.slice(0, 120);
    for (const attribute of [
      'ForLayerSet',
      'MaterialLayers',
      'Materials',
      'Material',
      'MaterialConstituents',
      'ForProfileSet',
      'MaterialProfiles',
    ])
      for (const handle of handles(line, attribute)) {
        const name = this.materialName(handle.value, depth + 1);
        if (name) return name;
      }
    return own;
  }

  /** All lines of a type. */
  lines(type: number): Line[] {
    const ids = this.api.GetLineIDsWithType(this.model, type);
    return Array.from({ length: ids.size() }, (_, i) => this.line(ids.get(i))).filter((line) => line !== null);
  }

  /** One line; null for what the file refers to and does not hold. */
  line(id: number | undefined): Line | null {
    if (id === undefined) return null;
    try {
      return (this.api.GetLine(this.model, id) as Line | undefined) ?? null;
    } catch {
      return null;
    }
  }
}

const PREFIXES: Record<string, number> = { MILLI: 0.001, CENTI: 0.01, DECI: 0.1, KILO: 1000 };

const ROLES: Record<string, ScenePart['role']> = {
  Door: 'door',
  Window: 'window',
  Stair: 'stair',
  Stairflight: 'stair',
};
