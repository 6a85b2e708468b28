import type { CoveredStorey } from '@eskovan/core/check';
import type { PromisedObject } from '@eskovan/core/document';
import type { Match } from '@eskovan/core/reel';
import type { NamedPicture, WishedFor } from '../../picture/ahead.ts';
import type { OrderedShot, ReelOrder } from '../../worker/reel-work.ts';
import type { SiteOrder } from '../../worker/site-order.ts';
import { setFacts } from './reel-facts.ts';
import { startReelHand, type ReelHand } from './reel-hand.ts';

/** What is asked of the reel again whenever it changes. */
export interface ReelQuestion {
  order: ReelOrder;
  storeys: readonly CoveredStorey[];
  /** Objects that are looked for. */
  promised: readonly PromisedObject[];
}

/** So long after a change the slower questions are asked, milliseconds: a dragging hand asks none. */
const REST = 220;

/**
 * The two workers that know the reel: one for what is waited for (lengths, what frames show), one that looks at all of it
 * (flow, rooms, checks). Of questions that wait only the newest is asked.
 */
export class ReelLink {
  private readonly quick: ReelHand = startReelHand();
  private readonly slow: ReelHand | null;
  private site: Promise<unknown> = Promise.resolve();
  private asked = 0;
  /** Names of frames, by shot. */
  private named: ReadonlyMap<string, readonly string[]> = new Map();
  private looking: Promise<void> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** @param of a reel that is only compared shows its pictures; nothing else is asked of it */
  constructor(of: WishedFor) {
    this.slow = of === 'open' ? startReelHand('look') : null;
  }

  /** Moves are measured anew in another site. */
  setSite(site: SiteOrder): Promise<void> {
    const given = Promise.all(
      [this.quick, ...(this.slow ? [this.slow] : [])].map(({ remote, stopped }) =>
        Promise.race([remote.setSite(site), stopped]),
      ),
    );
    this.site = given.catch(() => undefined);
    return given.then(() => undefined);
  }

  async measure(moves: readonly NonNullable<OrderedShot['move']>[]): Promise<void> {
    await this.site;
    const measured = await Promise.race([this.quick.remote.measure([...moves]), this.quick.stopped]);
    setFacts((now) => ({ measured: { ...now.measured, ...measured } }));
  }

  /** Takes the reel as it is now, and asks what follows from it. */
  async ask(question: ReelQuestion): Promise<void> {
    const { order } = question;
    const turn = (this.asked += 1);
    if (this.slow) setFacts({ current: false });
    clearTimeout(this.timer);
    await this.site;
    if (turn !== this.asked) return;
    await Promise.race([this.quick.remote.setReel(order), this.quick.stopped]);
    const named = await Promise.race([this.quick.remote.keys(), this.quick.stopped]);
    // What was told is remembered, whether or not it is still the newest: the worker will not tell it again.
    this.named = new Map(named.map(({ shot, keys }) => [shot, keys ?? this.named.get(shot) ?? []]));
    if (turn !== this.asked) return;
    const keys = named.flatMap(({ shot }) => this.named.get(shot)!);
    const { slow } = this;
    setFacts(slow ? { keys, named: this.named } : { besideKeys: keys });
    if (!slow) return;
    this.timer = setTimeout(() => {
      this.looking = this.looking.then(() => this.look(slow, turn, question)).catch(() => undefined);
    }, REST);
  }

  private async look(
    { remote, stopped }: ReelHand,
    turn: number,
    { order, storeys, promised }: ReelQuestion,
  ): Promise<void> {
    const orStopped = <T>(answer: Promise<T>) => Promise.race([answer, stopped]);
    if (turn !== this.asked) return;
    await orStopped(remote.setReel(order));
    const { shots, joins } = await orStopped(remote.flow());
    if (turn !== this.asked) return;
    setFacts({
      flows: Object.fromEntries(shots.map(({ shot, speeds }) => [shot, speeds])),
      joins: Object.fromEntries(joins.map(({ shot, ...fact }) => [shot, fact])),
    });
    const cover = await orStopped(remote.cover(storeys));
    if (turn !== this.asked) return;
    const objects = await orStopped(remote.objects(promised));
    const outside = await orStopped(remote.outside());
    if (turn !== this.asked) return;
    setFacts({ cover, objects, outside });
    const findings = await orStopped(remote.findings());
    if (turn === this.asked) setFacts({ findings, current: true });
  }

  /** What a frame shows. */
  async picture(frame: number): Promise<NamedPicture> {
    const [picture] = await Promise.race([this.quick.remote.pictures([frame]), this.quick.stopped]);
    return picture!;
  }

  /** @param index of the shot that the join leads to */
  match = (index: number, keepLength: boolean): Promise<Match[]> => {
    const { remote, stopped } = this.slow ?? this.quick;
    return Promise.race([remote.match(index, keepLength), stopped]);
  };

  samplesCsv = (): Promise<string> => Promise.race([this.quick.remote.samplesCsv(), this.quick.stopped]);

  close(): void {
    this.asked += 1;
    clearTimeout(this.timer);
    this.quick.stop();
    this.slow?.stop();
  }
}
