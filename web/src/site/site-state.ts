import type { LitBody, SiteBody } from '@eskovan/core/document';
import { create } from 'zustand';

export type SiteStep = 'measure' | 'store' | 'walkway' | 'light';

interface SiteState {
  projectId: string | null;
  /** The site that the project's models ask for; null while it has none. */
  wanted: string | null;
  /** The newest site there is, and which one it is: while a new one is computed, the one before. */
  site: SiteBody | null;
  of: string | null;
  /** The lights of the wanted models that there are, by their names; see `lightKey`. */
  lit: Readonly<Record<string, LitBody>>;
  /** Whether the server has been asked for the wanted ones. */
  looked: boolean;
  working: { step: SiteStep; fraction: number } | null;
  error: string | null;
  /** Counts the times that a person asked to try again. */
  tries: number;
}

export const EMPTY_SITE: SiteState = {
  projectId: null,
  wanted: null,
  site: null,
  of: null,
  lit: {},
  looked: false,
  working: null,
  error: null,
  tries: 0,
};

export const useSiteState = create<SiteState>()(() => EMPTY_SITE);
