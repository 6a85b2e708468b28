import type { MoveBody, Row } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import type { ComponentType } from 'react';
import { OrbitIcon, WalkIcon } from '../../kit/index.ts';
import type { PickedSurface } from '../../picture/source.ts';
import type { BodyOfKind } from './edit-move.ts';
import { lookAt } from './gaze-card.tsx';
import type { MoveCardsProps, MovePlanProps } from './move-props.ts';
import { OrbitCards } from './orbit-cards.tsx';
import { OrbitPlan } from './orbit-plan.tsx';
import { goRound } from './pivot-card.tsx';
import { WalkCards } from './walk-cards.tsx';
import { WalkPlan } from './walk-plan.tsx';

/** What the screen needs to know of a kind of move: its mark, its cards, its hands in the plan and in the picture. */
interface MoveKind<B extends MoveBody> {
  mark: ComponentType;
  /** Of the person whose eyes they are, metres; null where nobody walks. */
  eyeHeight: (body: B) => number | null;
  cards: ComponentType<MoveCardsProps<B>>;
  plan: ComponentType<MovePlanProps<B>>;
  /** What a press in the picture chooses while it is asked for, and what is said meanwhile. */
  aim: (row: Row<'move'>, hit: PickedSurface, move: CompiledMove | null) => void;
  aimHint: string;
}

const KINDS: { [K in MoveBody['kind']]: MoveKind<BodyOfKind<K>> } = {
  walk: {
    mark: WalkIcon,
    eyeHeight: (body) => body.eyeHeight,
    cards: WalkCards,
    plan: WalkPlan,
    aim: (row, hit, move) => void lookAt(row, hit, move),
    aimHint: 'Press what the eye is to look at',
  },
  orbit: {
    mark: OrbitIcon,
    eyeHeight: () => null,
    cards: OrbitCards,
    plan: OrbitPlan,
    aim: (row, hit) => void goRound(row, hit),
    aimHint: 'Press what the camera is to go round',
  },
};

/** The kind of a move; of none yet, that of a walk. Its cards and its plan take just such bodies. */
export const kindOf = (body: MoveBody | null): MoveKind<MoveBody> =>
  KINDS[body?.kind ?? 'walk'] as unknown as MoveKind<MoveBody>;
