import { lengthNumber, METRES, type LengthUnit } from '@eskovan/core/document';
import { createContext, useContext } from 'react';
import { Value } from './card.tsx';

/** What lengths are shown and typed in here: metres, unless the site is a product. */
const LengthUnitContext = createContext<LengthUnit>(METRES);
export const LengthUnitProvider = LengthUnitContext.Provider;
export const useLengthUnit = (): LengthUnit => useContext(LengthUnitContext);

interface LengthProps {
  metres: number | null | readonly number[];
  /** Places after the point where they are metres. */
  digits?: number;
  between?: string;
  /** A speed, not a length. */
  per?: 's';
}

/** A length, or several, in the unit of the site. */
export function Length({ metres, digits, between = ', ', per }: LengthProps) {
  const unit = useLengthUnit();
  const list = metres === null ? null : typeof metres === 'number' ? [metres] : metres;
  return (
    <Value unit={per ? `${unit.name}/${per}` : unit.name}>
      {list?.map((value) => lengthNumber(value, unit, digits)).join(between) ?? '–'}
    </Value>
  );
}
