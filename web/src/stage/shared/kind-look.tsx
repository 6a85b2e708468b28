import type { MoveBody } from '@eskovan/core/document';
import type { ComponentType } from 'react';
import { FollowIcon, GlideIcon, OrbitIcon, RideIcon, TravelIcon, WalkIcon } from '../../kit/index.ts';

/** The mark of a kind of move, and the colour that its lines have. */
export const KIND_LOOKS: Record<MoveBody['kind'], { Mark: ComponentType<{ size?: number }>; colour: string }> = {
  walk: { Mark: WalkIcon, colour: 'var(--lagoon)' },
  orbit: { Mark: OrbitIcon, colour: 'var(--plum)' },
  travel: { Mark: TravelIcon, colour: 'var(--indigo)' },
  glide: { Mark: GlideIcon, colour: 'var(--slate)' },
  ride: { Mark: RideIcon, colour: 'var(--rust)' },
  follow: { Mark: FollowIcon, colour: 'var(--rust)' },
};
