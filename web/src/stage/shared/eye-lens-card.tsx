import { toDegrees } from '@eskovan/core/geometry';
import type { Lens } from '@eskovan/core/document';
import { FOCAL_LENGTHS } from '@eskovan/core/move';
import { viewAngles } from '@eskovan/core/optics';
import type { ReactNode } from 'react';
import { Card, Line, NumberField, Select, Value } from '../../kit/index.ts';
import { ExposureField } from './exposure-field.tsx';
import { FocusFields, type LensChange } from './focus-fields.tsx';
import { heightOf, personOf, PERSON_OPTIONS } from './people.ts';

interface EyeLensCardProps {
  eyeHeight?: number;
  onEyeHeight?: (height: number) => void;
  lens: Lens;
  onLens: (change: LensChange) => void;
  /** Width over height of the picture. */
  aspect: number;
  /** More about the lens. */
  children?: ReactNode;
}

/** As light as other pictures is said by nothing. */
function withExposure({ exposure: _, ...lens }: Lens, exposure: number): Lens {
  return exposure === 0 ? lens : { ...lens, exposure };
}

const degrees = (radians: number) => toDegrees(radians).toFixed(1);

/** How high the eye is and how wide it sees. */
export function EyeLensCard({ eyeHeight, onEyeHeight, lens, onLens, aspect, children }: EyeLensCardProps) {
  return (
    <Card
      title={eyeHeight === undefined ? 'Lens' : 'Eye and lens'}
      note={
        eyeHeight !== undefined &&
        onEyeHeight && (
          <Select
            label="Whose eyes"
            value={personOf(eyeHeight)}
            options={PERSON_OPTIONS}
            onChange={(person) => {
              const height = heightOf(person);
              if (height !== null) onEyeHeight(height);
            }}
          />
        )
      }
    >
      {eyeHeight !== undefined && onEyeHeight && (
        <NumberField
          label="Eye height"
          unit="m"
          measure="length"
          value={eyeHeight}
          step={0.05}
          min={0.3}
          max={3}
          onChange={onEyeHeight}
        />
      )}
      {lens.parallel === undefined && <ThroughGlass {...{ lens, onLens, aspect }} />}
      <ExposureField
        exposure={lens.exposure ?? 0}
        onExposure={(exposure) => onLens((now) => withExposure(now, exposure))}
      />
      {children}
    </Card>
  );
}

/** What only a lens with perspective has. */
function ThroughGlass({ lens, onLens, aspect }: Pick<EyeLensCardProps, 'lens' | 'onLens' | 'aspect'>) {
  const angles = viewAngles(lens, aspect);
  return (
    <>
      <NumberField
        label="Focal length"
        unit="mm"
        measure="millimetre"
        digits={0}
        value={lens.focalLengthMm}
        step={1}
        min={FOCAL_LENGTHS[0]}
        max={FOCAL_LENGTHS[1]}
        onChange={(focalLengthMm) => onLens((now) => ({ ...now, focalLengthMm }))}
      />
      <Line label="View angle">
        <Value unit="°">
          {degrees(angles.horizontal)} × {degrees(angles.vertical)}
        </Value>
      </Line>
      <FocusFields lens={lens} onLens={onLens} />
    </>
  );
}
