import type { Lens } from '@eskovan/core/document';
import { circleOfConfusionMm, depthOfField } from '@eskovan/core/optics';
import { Length, Line, NumberField, Segmented } from '../../kit/index.ts';

/** What is done to a lens, whichever it is by then: a page shows a lens a moment later than somebody has typed one. */
export type LensChange = (lens: Lens) => Lens;

interface FocusFieldsProps {
  lens: Lens;
  onLens: (change: LensChange) => void;
}

/** What a lens begins with that is not sharp everywhere. */
export const FIRST_F_NUMBER = 2.8;
const FIRST_FOCUS = 3;

const sharpEverywhere: LensChange = ({ focus: _, fNumber: __, ...everything }) => everything;
const sharpAtADistance: LensChange = (lens) => ({ ...lens, focus: FIRST_FOCUS, fNumber: FIRST_F_NUMBER });

/** What is sharp: everything, or what lies about a distance. Seen in finished pictures, and in those that rest. */
export function FocusFields({ lens, onLens }: FocusFieldsProps) {
  const { focus, fNumber, focalLengthMm, sensor } = lens;
  const focused = focus !== undefined && fNumber !== undefined;
  const sharp = focused ? depthOfField(focalLengthMm, fNumber, focus, circleOfConfusionMm(sensor)) : null;
  return (
    <>
      <Line label="Sharp">
        <Segmented
          label="What is sharp"
          value={focused ? 'distance' : 'all'}
          options={[
            { value: 'all', label: 'All' },
            { value: 'distance', label: 'At a distance' },
          ]}
          onChange={(value) => onLens(value === 'all' ? sharpEverywhere : sharpAtADistance)}
        />
      </Line>
      {focused && (
        <>
          <NumberField
            label="Focus at"
            unit="m"
            measure="length"
            value={focus}
            step={0.1}
            min={0.01}
            max={10_000}
            onChange={(next) => onLens((now) => ({ ...now, focus: next }))}
          />
          <NumberField
            label="f-number"
            digits={1}
            value={fNumber}
            step={0.1}
            min={0.7}
            max={64}
            onChange={(next) => onLens((now) => ({ ...now, fNumber: next }))}
          />
          <Line label="Sharp from">
            <Length metres={[sharp!.near, sharp!.far]} between=" to " />
          </Line>
        </>
      )}
    </>
  );
}
