import { encodeSrgb } from '../colour/index.ts';
import type { ReadModel } from './scene-model.ts';

/** What is painted by hand or by a program of shapes has fewer colours; what was photographed has as many as vertices. */
const MOST_PAINTED = 1000;
const STEPS = 255;

/**
 * A scan is one mesh, comes without lamps or sky, and with a colour in each vertex that a camera saw: these hold their light
 * already, and are shown as they are. Lit once more they would be dark indoors, and twice shaded outdoors.
 */
export function photographed(model: ReadModel): ReadModel {
  const [part, ...others] = model.parts;
  if (!part?.colors || others.length > 0) return model;
  const { texture, unlit } = model.materials[part.material]!;
  if (texture !== null || unlit) return model;
  const { colors } = part;
  const known = new Set<number>();
  for (let o = 0; o < colors.length && known.size <= MOST_PAINTED; o += 3)
    known.add([0, 1, 2].reduce((key, k) => 256 * key + Math.round(STEPS * encodeSrgb(colors[o + k]!)), 0));
  if (known.size <= MOST_PAINTED) return model;
  return {
    ...model,
    materials: model.materials.map((material, i) => (i === part.material ? { ...material, unlit: true } : material)),
    notes: [
      ...model.notes,
      'Its colours look photographed: they hold their light already, and are shown as they are. Materials can light them.',
    ],
  };
}
