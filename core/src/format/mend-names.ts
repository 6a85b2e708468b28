import { mendText } from '../document/json.ts';

/**
 * A model with all its names as text that can be kept: characters that no database holds (U+0000, halves of pairs) are
 * replaced, everywhere alike, so that what names something else still finds it.
 */
export function mendNames<T>(value: T): T {
  if (typeof value === 'string') return mendText(value) as T;
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return value;
  if (Array.isArray(value)) return value.map(mendNames) as T;
  return Object.fromEntries(Object.entries(value).map(([key, member]) => [key, mendNames(member)])) as T;
}
