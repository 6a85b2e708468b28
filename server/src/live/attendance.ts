import type { Presence } from '@eskovan/core/document';

/** A page that was not heard of for so long is closed, milliseconds. Pages tell of themselves three times in that. */
export const ABSENT_MS = 60_000;

/** Who has which project open. Pages come and go without saying so: what is not renewed lapses. */
export class Attendance {
  private readonly pages = new Map<string, { presence: Presence; at: number }>();

  /** @returns whether anything is other than before */
  note(presence: Presence, now: number): boolean {
    const lapsed = this.lapse(now);
    const before = this.pages.get(presence.tab)?.presence;
    if (before && before.turn > presence.turn) return lapsed;
    // A page that closed is kept too: what it said before that may still be on its way.
    this.pages.set(presence.tab, { presence, at: now });
    const { projectId = null, stage, person, row } = before ?? {};
    if (projectId === null && presence.projectId === null) return lapsed;
    return (
      lapsed ||
      projectId !== presence.projectId ||
      stage !== presence.stage ||
      row !== presence.row ||
      person?.name !== presence.person.name
    );
  }

  now(now: number): Presence[] {
    this.lapse(now);
    return [...this.pages.values()].flatMap(({ presence }) => (presence.projectId === null ? [] : [presence]));
  }

  private lapse(now: number): boolean {
    let any = false;
    for (const [tab, { at }] of this.pages) if (now - at > ABSENT_MS) any = this.pages.delete(tab) || any;
    return any;
  }
}
