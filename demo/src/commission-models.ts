import { AS_IT_CAME, type Placement } from '@eskovan/core/document';
import { DECK } from './building/dimensions.ts';
import { Builder, writeGlb } from './kit/index.ts';
import { observatory } from './observatory.ts';
import { scope } from './scope/scope.ts';
import { car } from './shuttle/car.ts';
import { atTheStop } from './shuttle/ride.ts';
import { buildTrack } from './shuttle/track.ts';
import { marsh } from './site/marsh.ts';

export interface CommissionModel {
  /** Names it among the commission's models. */
  key: 'observatory' | 'marsh' | 'track' | 'shuttle' | 'scope';
  name: string;
  fileName: string;
  build: (builder: Builder) => void;
  placement: Placement;
}

/** The car waits on the rails at the stop. */
function waiting(): Placement {
  const { at, pan } = atTheStop();
  return { ...AS_IT_CAME, turn: pan, position: [...at] };
}

/** The commission's models, as an office keeps them: one file each. */
export const COMMISSION_MODELS: readonly CommissionModel[] = [
  {
    key: 'observatory',
    name: 'Observatory',
    fileName: 'ternholm-observatory.glb',
    build: observatory,
    placement: AS_IT_CAME,
  },
  { key: 'marsh', name: 'Marsh', fileName: 'ternholm-marsh.glb', build: marsh, placement: AS_IT_CAME },
  { key: 'track', name: 'Shuttle track', fileName: 'shuttle-track.glb', build: buildTrack, placement: AS_IT_CAME },
  { key: 'shuttle', name: 'Shuttle', fileName: 'shuttle.glb', build: car, placement: waiting() },
  {
    key: 'scope',
    name: 'Heron field scope',
    fileName: 'heron-field-scope.glb',
    build: scope,
    placement: { ...AS_IT_CAME, turn: -0.5, position: [22.2, DECK, 1.5] },
  },
];

export function buildModel({ build }: CommissionModel): Builder {
  const builder = new Builder();
  build(builder);
  return builder;
}

/** A model as a GLB. The same bytes every time. */
export const modelGlb = (model: CommissionModel): Promise<Uint8Array> =>
  writeGlb(buildModel(model), `Ternholm ${model.name}`);
