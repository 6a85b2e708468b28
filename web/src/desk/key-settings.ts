import { create } from 'zustand';
import { z } from 'zod';
import { safeJson } from '../data/api.ts';

const NAME = 'eskovan-keys';
const settingsSchema = z.object({
  /** Do letters without Ctrl or Alt do anything? Who speaks to the machine switches them off. */
  singles: z.boolean().default(true),
  /** Keys that this person gave to commands; empty: none. */
  changed: z.record(z.string().max(80), z.string().max(40)).default({}),
});
type KeySettings = z.infer<typeof settingsSchema>;

const read = (): KeySettings => {
  const kept = settingsSchema.safeParse(safeJson(localStorage.getItem(NAME) ?? 'null'));
  return kept.success ? kept.data : { singles: true, changed: {} };
};

export const useKeySettings = create<KeySettings>()(read);

export function setKeySettings(change: Partial<KeySettings>): void {
  useKeySettings.setState(change);
  const { singles, changed } = useKeySettings.getState();
  localStorage.setItem(NAME, JSON.stringify({ singles, changed }));
}

/** The keys of a command, as this person has them. */
export const chosenKeys = (
  { id, keys }: { id: string; keys?: string },
  changed: KeySettings['changed'],
): string | undefined => (Object.hasOwn(changed, id) ? changed[id] : keys) || undefined;
