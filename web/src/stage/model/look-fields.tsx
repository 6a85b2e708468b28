import type { MaterialLook } from '@eskovan/core/document';
import type { ReactNode } from 'react';
import { Button, ColourField, Line, NumberField } from '../../kit/index.ts';
import type { PartMaterial } from '../../worker/parts.ts';
import { hexOf, linearOf } from './colour.ts';

interface LookFieldsProps {
  /** What was changed. */
  look: MaterialLook;
  /** What shows where nothing was changed. */
  came: Pick<PartMaterial, 'color' | 'roughness'>;
  /** What taking the change back is called. */
  back: string;
  /** @param words what changes */
  /** Said between the fields and the buttons. */
  children?: ReactNode;
  onChange: (words: string, change: { [K in keyof MaterialLook]?: MaterialLook[K] | undefined }) => void;
}

const FIELDS = ['color', 'roughness', 'clay', 'light'] as const satisfies readonly (keyof MaterialLook)[];

/** Colour, roughness and clay of a part or a material, and the way back to what came. */
export function LookFields({ look, came, back, onChange, children }: LookFieldsProps) {
  const changed = FIELDS.some((field) => look[field] !== undefined);
  return (
    <>
      <Line label="Colour">
        <ColourField
          label="Colour"
          value={hexOf(look.color ?? came.color)}
          onChange={(colour) => onChange('Colour', { color: linearOf(colour) })}
        />
      </Line>
      <NumberField
        label="Roughness"
        value={look.roughness ?? came.roughness}
        step={0.05}
        min={0}
        max={1}
        onChange={(roughness) => onChange('Roughness', { roughness })}
      />
      {children}
      <div className="mt-1.5 flex gap-1.5">
        <Button small pressed={look.clay === true} onClick={() => onChange('Clay', { clay: !look.clay })}>
          As clay
        </Button>
        {changed && (
          <Button small onClick={() => onChange(back, Object.fromEntries(FIELDS.map((field) => [field, undefined])))}>
            As it came
          </Button>
        )}
      </div>
    </>
  );
}
