import type { Vec3 } from '@eskovan/core/document';
import type { CameraSample } from '@eskovan/core/move';
import { Projection } from '@eskovan/core/optics';
import { ExposureTrack, FIRST_GAIN, type ExposedMove, type LightMeter } from '@eskovan/core/survey';
import type { Vector3 } from 'three';

/** A step of the eye between two moving pictures that is none any more, metres. */
const SOMEWHERE_ELSE = 0.6;
/** How far a moving picture gets to the exposure of its place, 0…1. */
const EASED = 0.3;
/** Of moving pictures each so many-th is metered: it takes as long as a tenth of a picture, and they get there bit by bit. */
const METERED = 3;

type Meter = Pick<LightMeter, 'gainAt'>;

/** How bright pictures are: as their place asks for, and lighter or darker as people want it. */
export class Exposure {
  private meter: Meter | null = null;
  private stops: number | null = 0;
  /** What was shown last. */
  private shown: { position: Vec3; gain: Vec3 } | null = null;
  /** What moving pictures are getting used to, and how many of them more will be. */
  private target: { gain: Vec3; left: number } | null = null;

  /** @param gain what pictures are multiplied by */
  constructor(private readonly gain: { value: Vector3 }) {}

  /**
   * @param meter of the scene that is drawn from now on; null where nothing lights it
   * @param stops lighter or darker; null for a drawing, which is never exposed
   */
  use(meter: Meter | null, stops: number | null): void {
    // Nobody gets used to a drawing.
    if ((stops === null) !== (this.stops === null)) this.shown = null;
    this.meter = meter;
    this.stops = stops;
    this.target = null;
  }

  /** Sets it for the pictures that follow. @param gain exposure and white balance; metered where it is not given */
  set(sample: CameraSample, gain = this.metered(sample)): void {
    const stops = this.stops === null ? 0 : this.stops + sample.exposure;
    this.gain.value.fromArray(gain).multiplyScalar(2 ** stops);
    this.shown = { position: sample.position, gain };
  }

  metered({ position, orientation, view }: CameraSample): Vec3 {
    // What is cut away is not seen.
    const seenFrom = new Projection(view, 1, position, orientation).fromAxes([0, 0, view.nearCut ?? 0]);
    return this.meter?.gainAt(position.map((value, k) => value + seenFrom[k]!) as Vec3, orientation) ?? FIRST_GAIN;
  }

  /** While one moves, the picture gets used to another light; somewhere else altogether it is as it is. */
  eased(sample: CameraSample): Vec3 {
    const { shown } = this;
    if (!shown || Math.hypot(...sample.position.map((value, k) => value - shown.position[k]!)) > SOMEWHERE_ELSE) {
      this.target = null;
      return this.metered(sample);
    }
    if (!this.target?.left) this.target = { gain: this.metered(sample), left: METERED };
    this.target.left -= 1;
    const { gain } = this.target;
    return gain.map((value, k) => shown.gain[k]! ** (1 - EASED) * value ** EASED) as Vec3;
  }

  /** Along a move, for films. */
  along(move: ExposedMove): ExposureTrack {
    return new ExposureTrack(this.meter ?? { gainAt: () => FIRST_GAIN }, move);
  }
}
