import type { Footing } from '../survey/index.ts';
import type { Channel, ChannelItem } from '../track/index.ts';

interface HeightOptions {
  items?: readonly ChannelItem[];
  /** What is under a place, metres; without it the floor there. */
  belowAt?: (x: number, y: number, z: number) => number;
}

/** How high a camera is over what is under it. @param placeAt writes where it is at a time, metres */
export function heightChannel(
  footing: Footing,
  placeAt: (time: number, out: Float64Array, at: number) => void,
  { items, belowAt = (x, y, z) => footing.floors.floorBelow(x, z, y) }: HeightOptions = {},
): Channel {
  const place = new Float64Array(3);
  const at = (time: number) => {
    placeAt(time, place, 0);
    return place[1]!;
  };
  return {
    id: 'section',
    title: 'Section',
    unit: 'm',
    at,
    under: {
      title: 'Below',
      at: (time) => {
        const y = at(time);
        const below = belowAt(place[0]!, y, place[2]!);
        // Over nothing there is nothing to be over.
        return below > -Infinity ? below : y;
      },
    },
    ...(items && { items }),
  };
}
