/** This browser tab, as long as its page lives. */
export const thisTab: string = crypto.randomUUID();

const lockOf = (tab: string) => `eskovan-tab-${tab}`;

// Held as long as this page lives: other pages see by it which unsent edits are abandoned.
void navigator.locks?.request(lockOf(thisTab), () => new Promise(() => {}));

/** Calls back when the page of another tab has closed or crashed. */
export async function whenClosed(tab: string, then: () => Promise<unknown>): Promise<void> {
  await navigator.locks?.request(lockOf(tab), then);
}

/** Tabs whose pages live. */
export async function livingTabs(): Promise<Set<string>> {
  const state = await navigator.locks?.query();
  return new Set((state?.held ?? []).flatMap(({ name }) => (name?.startsWith('eskovan-tab-') ? [name.slice(12)] : [])));
}
