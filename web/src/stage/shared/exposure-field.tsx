import { LEAST_EXPOSURE, MOST_EXPOSURE } from '@eskovan/core/document';
import { NumberField } from '../../kit/index.ts';

interface ExposureFieldProps {
  /** Stops. */
  exposure: number;
  onExposure: (exposure: number) => void;
}

/** How much lighter or darker pictures are. */
export function ExposureField({ exposure, onExposure }: ExposureFieldProps) {
  return (
    <NumberField
      label="Exposure"
      unit="stops"
      digits={1}
      step={0.1}
      min={LEAST_EXPOSURE}
      max={MOST_EXPOSURE}
      value={exposure}
      onChange={onExposure}
    />
  );
}
