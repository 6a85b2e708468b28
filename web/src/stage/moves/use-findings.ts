import { movesParts } from '@eskovan/core/action';
import { checkMove, type CoveredStorey, type Finding, type RoomCover } from '@eskovan/core/check';
import { aspectOf, type MoveBody } from '@eskovan/core/document';
import { needsParts, type CompiledMove } from '@eskovan/core/move';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useProject } from '../../data/use-project.ts';
import { useActions, useSiteData } from '../../site/use-site.ts';
import type { SiteOrder } from '../../worker/site-order.ts';
import { useSiteOrder } from '../shared/use-site-order.ts';
import { startGround, type GroundHand } from './ground-worker.ts';

export interface Checked {
  findings: readonly Finding[];
  /** Is this of what is shown now? Else a newer answer is on its way. */
  current: boolean;
  /** How long it shows every room; null while that is not known. */
  cover: readonly RoomCover[] | null;
}

/**
 * Checks begin when a hand has rested for so long, milliseconds: while it drags they would only take the picture's time.
 * With what they take themselves they stay well within half a second of an edit.
 */
const RESTS = 160;

const NOTHING: Checked = { findings: [], current: false, cover: null };

/**
 * What the checks know of a move, worked out beside the page: a newer question replaces one that waits.
 * @param stirring what changes with every step of a hand, while body and move follow it more calmly
 */
export function useFindings(body: MoveBody | null, move: CompiledMove | null, stirring: unknown = body): Checked {
  const { body: project } = useProject().project;
  const { data } = useSiteData();
  // Doors that open are no longer in the way.
  const moves = useActions().some(movesParts);
  const asksParts = body !== null && (moves || needsParts(body));
  const site = useSiteOrder(asksParts);
  const [answer, setAnswer] = useState<{ order: Order; findings: readonly Finding[] } | null>(null);
  const [cover, setCover] = useState<readonly RoomCover[] | null>(null);
  const desk = useRef<CheckDesk | null>(null);
  useEffect(
    () => () => {
      desk.current?.close();
      desk.current = null;
    },
    [],
  );
  const { walker, limits } = project;
  const aspect = aspectOf(project);
  const footing = data?.footing ?? null;
  const survey = data?.survey ?? null;
  const order = useMemo((): Order | null => (body && site ? { body, site } : null), [body, site]);
  useEffect(() => {
    if (!order || !move || !footing) return undefined;
    const ask = () => {
      desk.current ??= new CheckDesk();
      desk.current.ask(order, {
        storeys: survey!.storeys,
        onAnswer: (findings) => setAnswer({ order, findings }),
        onCover: setCover,
        // Without a worker the page looks itself: slower, and the same.
        otherwise: () => checkMove(move, footing, limits, walker, aspect),
      });
    };
    const timer = setTimeout(ask, RESTS);
    return () => clearTimeout(timer);
  }, [stirring, order, move, footing, walker, limits, aspect, survey]);
  if (!answer || !body) return NOTHING;
  return { findings: answer.findings, current: answer.order === order, cover };
}

interface Order {
  body: MoveBody;
  site: SiteOrder;
}

interface Question {
  storeys: readonly CoveredStorey[];
  onAnswer: (findings: readonly Finding[]) => void;
  onCover: (cover: readonly RoomCover[] | null) => void;
  otherwise: () => readonly Finding[];
}

/** One question at a time; of those that wait, the newest. */
class CheckDesk {
  private hand: GroundHand | null = null;
  /** What the worker checks in: it is sent once, not with every move. */
  private site: SiteOrder | null = null;
  private waiting: [Order, Question] | null = null;
  private busy = false;
  private closed = false;

  ask(order: Order, question: Question): void {
    this.waiting = [order, question];
    if (!this.busy) void this.work();
  }

  private async work(): Promise<void> {
    this.busy = true;
    while (this.waiting && !this.closed) {
      const [order, { storeys, onAnswer, onCover, otherwise }] = this.waiting;
      this.waiting = null;
      let findings: readonly Finding[];
      try {
        findings = await this.asked(order);
      } catch {
        this.hand?.stop();
        this.hand = null;
        this.site = null;
        findings = otherwise();
      }
      if (this.closed) return;
      onAnswer(findings);
      // While a hand is at work nobody reads how long a room is seen.
      if (!this.waiting) onCover(await this.cover(storeys));
    }
    this.busy = false;
  }

  private async asked({ body, site }: Order): Promise<readonly Finding[]> {
    const { remote, stopped } = (this.hand ??= startGround());
    if (this.site !== site) await Promise.race([remote.standIn(site), stopped]);
    this.site = site;
    return (await Promise.race([remote.check(body), stopped])) ?? [];
  }

  private async cover(storeys: readonly CoveredStorey[]): Promise<readonly RoomCover[] | null> {
    const { hand } = this;
    if (!hand) return null;
    return Promise.race([hand.remote.cover(storeys), hand.stopped]).catch(() => null);
  }

  close(): void {
    this.closed = true;
    this.hand?.stop();
    this.hand = null;
  }
}
