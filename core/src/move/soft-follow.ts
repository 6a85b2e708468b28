/** What is followed is read so often, seconds. */
const INSTANT = 1 / 120;

/**
 * Follows a value softly, as a critically damped spring does: y″ = ω²(x − y) − 2ωy′, with ω = 2 / lag, so that it is so
 * many seconds behind what moves evenly. Between two instants what is followed goes straight, and there the equation is
 * solved exactly: any instant can be asked by itself. It has been following before it begins.
 */
export class SoftFollow {
  private readonly step: number;
  private readonly omega: number;
  private readonly wanted: Float64Array;
  private readonly values: Float64Array;
  private readonly speeds: Float64Array;

  /** @param at what is followed @param duration seconds @param lag seconds, above 0 */
  constructor(at: (time: number) => number, duration: number, lag: number) {
    const steps = Math.max(2, Math.ceil(duration / INSTANT));
    this.step = duration / steps;
    this.omega = 2 / lag;
    this.wanted = Float64Array.from({ length: steps + 1 }, (_, i) => at(i * this.step));
    this.values = new Float64Array(steps + 1);
    this.speeds = new Float64Array(steps + 1);
    const first = this.slope(0);
    this.values[0] = this.wanted[0]! - (2 * first) / this.omega;
    this.speeds[0] = first;
    for (let i = 0; i < steps; i += 1) [this.values[i + 1], this.speeds[i + 1]] = this.within(i, this.step);
  }

  at(time: number): number {
    const last = this.values.length - 1;
    const place = Math.min(last, Math.max(0, time / this.step));
    const i = Math.min(last - 1, Math.floor(place));
    return this.within(i, (place - i) * this.step)[0];
  }

  private slope(i: number): number {
    return (this.wanted[i + 1]! - this.wanted[i]!) / this.step;
  }

  /** Value and speed so many seconds after an instant. */
  private within(i: number, seconds: number): [number, number] {
    const { omega } = this;
    const slope = this.slope(i);
    const behind = (2 * slope) / omega;
    const off = this.values[i]! - (this.wanted[i]! - behind);
    const rate = this.speeds[i]! - slope + omega * off;
    const fade = Math.exp(-omega * seconds);
    const now = (off + rate * seconds) * fade;
    return [this.wanted[i]! + slope * seconds - behind + now, slope + rate * fade - omega * now];
  }
}
