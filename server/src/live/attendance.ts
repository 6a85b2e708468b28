import type { Presence } from '@eskovan/core/document';

/** A page that was not heard of for so long is closed, milliseconds. Pages tell of themselves three times in that. */
export const ABSENT_MS = 60_000;

/** Who has which project open. Pages come and go without saying so: what is not renewed lapses. */
export class Attendance {
  private readonly pages = new Map<string, { presence: Presence; at: number }>();

  /** @returns whether anything is other than before */
  note(presence: Presence, now: number): boolean {
    const before = this.pages.get(presence.tab);
    const lapsed = this.lapse(now);
    if (presence.projectId === null) return this.pages.delete(presence.tab) || lapsed;
    this.pages.set(presence.tab, { presence, at: now });
    const { projectId, stage, person } = before?.presence ?? {};
    return (
      lapsed || projectId !== presence.projectId || stage !== presence.stage || person?.name !== presence.person.name
    );
  }

  now(now: number): Presence[] {
    this.lapse(now);
    return [...this.pages.values()].map(({ presence }) => presence);
  }

  private lapse(now: number): boolean {
    let any = false;
    for (const [tab, { at }] of this.pages) if (now - at > ABSENT_MS) any = this.pages.delete(tab) || any;
    return any;
  }
}
