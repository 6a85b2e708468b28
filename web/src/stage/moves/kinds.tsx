import type { MoveBody, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import type { ComponentType } from 'react';
import type { CarrierSite } from '@eskovan/core/move';
import { FollowIcon, GlideIcon, OrbitIcon, RideIcon, TravelIcon, WalkIcon } from '../../kit/index.ts';
import { workbench, type Aim } from '../../desk/workbench.ts';
import type { PickedSurface } from '../../picture/source.ts';
import type { BodyOfKind } from './edit-move.ts';
import { lookAt } from './gaze-card.tsx';
import type { MoveCardsProps, MovePlanProps } from './move-props.ts';
import { OrbitCards } from './orbit-cards.tsx';
import { OrbitPlan } from './orbit-plan.tsx';
import { goRound } from './pivot-card.tsx';
import { WalkCards } from './walk-cards.tsx';
import { FollowCards } from './follow-cards.tsx';
import { GlideCards } from './glide-cards.tsx';
import { PathPlan } from './path-plan.tsx';
import { RideCards } from './ride-cards.tsx';
import { rideOnPressed } from './seat.ts';
import { TimedPlan } from './timed-plan.tsx';
import { TravelCards } from './travel-cards.tsx';
import { roundSubject } from './edit-poses.ts';

/** What the screen needs to know of a kind of move: its mark, its cards, its hands in the plan and in the picture. */
interface MoveKind<B extends MoveBody> {
  mark: ComponentType;
  /** Of the person whose eyes they are, metres; null where nobody walks. */
  eyeHeight: (body: B) => number | null;
  cards: ComponentType<MoveCardsProps<B>>;
  plan: ComponentType<MovePlanProps<B>>;
  /** What a press in the picture chooses while it is asked for, and what is said meanwhile. */
  aim: (row: Row<'move'>, hit: PickedSurface, move: CompiledMove | null, site: CarrierSite) => void;
  aimHint: (aim: Aim) => string;
}

const KINDS: { [K in MoveBody['kind']]: MoveKind<BodyOfKind<K>> } = {
  walk: {
    mark: WalkIcon,
    eyeHeight: (body) => body.eyeHeight,
    cards: WalkCards,
    plan: PathPlan,
    aim: (row, hit, move) => void lookAt(row, hit, move),
    aimHint: () => 'Press what the eye is to look at',
  },
  orbit: {
    mark: OrbitIcon,
    eyeHeight: () => null,
    cards: OrbitCards,
    plan: OrbitPlan,
    aim: (row, hit) => void goRound(row, hit),
    aimHint: () => 'Press what the camera is to go round',
  },
  travel: {
    mark: TravelIcon,
    eyeHeight: () => null,
    cards: TravelCards,
    plan: TimedPlan,
    aim: (row, hit, move) =>
      workbench.get().aiming === 'subject' ? roundSubject(row, hit.point) : void lookAt(row, hit, move),
    aimHint: (aim) => `Press what the camera is to ${aim === 'subject' ? 'go round' : 'look at'}`,
  },
  glide: {
    mark: GlideIcon,
    eyeHeight: () => null,
    cards: GlideCards,
    plan: PathPlan,
    aim: (row, hit, move) => void lookAt(row, hit, move),
    aimHint: () => 'Press what the camera is to look at',
  },
  ride: {
    mark: RideIcon,
    eyeHeight: () => null,
    cards: RideCards,
    plan: TimedPlan,
    aim: (row, hit, move, site) =>
      void (workbench.get().aiming === 'carrier' ? rideOnPressed(row, hit, site) : lookAt(row, hit, move)),
    aimHint: (aim) => `Press what ${aim === 'carrier' ? 'is to carry the camera' : 'the camera is to look at'}`,
  },
  follow: {
    mark: FollowIcon,
    eyeHeight: () => null,
    cards: FollowCards,
    plan: TimedPlan,
    aim: (row, hit, move) => void lookAt(row, hit, move),
    aimHint: () => 'Press what the camera is to follow',
  },
};

/** The kind of a move; of none yet, that of a walk. Its cards and its plan take just such bodies. */
export const kindOf = (body: MoveBody | null): MoveKind<MoveBody> =>
  KINDS[body?.kind ?? 'walk'] as unknown as MoveKind<MoveBody>;
