import type { Pace, WayAnchor } from '../document/index.ts';
import type { PacedWay, PlacedMark, PlacedPause, PlacedPin } from './paced-way.ts';

/** What is in a pace, where its anchors have put it, in the order of the way. */
export interface PlacedItems {
  marks: PlacedMark[];
  pauses: PlacedPause[];
  pins: Omit<PlacedPin, 'reached'>[];
  /** Items that hold on to nothing any more. */
  lost: number;
}

export function placeItems(
  { marks = [], pauses = [], pins = [], speed }: Pace,
  { length, stationOf }: PacedWay,
): PlacedItems {
  let lost = 0;
  const place = <T extends { anchor: WayAnchor }>(items: readonly T[]): (T & { station: number })[] =>
    items.flatMap((item) => {
      const { anchor } = item;
      const station = stationOf ? stationOf(anchor) : anchor.by === 'station' ? anchor.station : null;
      if (station === null) lost += 1;
      return station === null ? [] : [{ ...item, station: Math.min(length, Math.max(0, station)) }];
    });
  const placed = {
    marks: place(marks).map((mark) => ({
      id: mark.id,
      from: Math.max(0, mark.station - mark.length / 2),
      to: Math.min(length, mark.station + mark.length / 2),
      speed: mark.speed,
      part: mark.speed / speed,
    })),
    pauses: place(pauses)
      .map(({ id, station, seconds }) => ({ id, station, seconds }))
      .sort((a, b) => a.station - b.station),
    pins: place(pins)
      .map(({ id, station, time }) => ({ id, station, time }))
      .sort((a, b) => a.station - b.station),
  };
  return { ...placed, lost };
}
