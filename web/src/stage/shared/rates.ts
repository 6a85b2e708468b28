import type { Rate } from '@eskovan/core/document';
import { USUAL_RATES } from '@eskovan/core/exchange';
import { nominalRate } from '@eskovan/core/reel';

/** A rate as people say it: 25, 29.97, 23.976. */
export function rateText({ num, den }: Rate): string {
  if (den === 1) return String(num);
  const places = nominalRate({ num, den }) === 24 ? 3 : 2;
  return (num / den).toFixed(places);
}

/** A rate as one of the options. */
export const rateValue = ({ num, den }: Rate): string => `${num}/${den}`;

/** Rates to choose from: the usual ones, and whatever one it is now. Those that drop timecodes say so. */
export function rateOptions(now: Rate | undefined): { value: string; label: string; rate: Rate }[] {
  const rates =
    now && !USUAL_RATES.some((one) => rateValue(one) === rateValue(now)) ? [...USUAL_RATES, now] : [...USUAL_RATES];
  return rates.map((rate) => ({
    value: rateValue(rate),
    label: `${rateText(rate)} frames/s${rate.den === 1001 && nominalRate(rate) % 30 === 0 ? ', drop' : ''}`,
    rate,
  }));
}
