import { adoptEdits } from './edits.ts';
import { livingTabs, thisTab, whenClosed } from './tab.ts';

const CHANNEL = 'eskovan-tabs';
const ADOPTING = 'eskovan-adopting';

/** Takes over what closed tabs left unsent: one tab at a time, and none takes what another has. */
async function adopt(): Promise<void> {
  const take = async () => {
    const alive = await livingTabs();
    await adoptEdits((owner) => !alive.has(owner));
  };
  await (navigator.locks ? navigator.locks.request(ADOPTING, take) : adoptEdits(() => true));
}

/** Looks after the other tabs of this browser: when one closes with unsaved edits, another saves them. */
export async function watchNeighbours(): Promise<void> {
  await adopt();
  if (!navigator.locks || typeof BroadcastChannel === 'undefined') return;
  const known = new Set([thisTab]);
  const watch = (tab: string) => {
    if (known.has(tab)) return;
    known.add(tab);
    void whenClosed(tab, async () => undefined).then(adopt);
  };
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = ({ data }) => typeof data === 'string' && watch(data);
  channel.postMessage(thisTab);
  for (const tab of await livingTabs()) watch(tab);
}
