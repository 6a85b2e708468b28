import type { Row } from '@eskovan/core/document';
import type { ClipMotion } from '@eskovan/core/reel';
import { useEffect, useMemo } from 'react';
import { create } from 'zustand';
import { readClip } from './clip-reader.ts';

/** How the clips that have been looked at move, by the SHA-256 of their files; null where it cannot be told. */
const useMotions = create<Readonly<Record<string, ClipMotion | null>>>()(() => ({}));
const asked = new Set<string>();

/** How the clips among these shots move, as far as it is known; each file is looked at once. */
export function useClipMotions(rows: readonly Row<'shot'>[]): Readonly<Record<string, ClipMotion | null>> {
  const files = useMemo(
    () => rows.flatMap(({ body: { use } }) => (use.kind === 'clip' ? [use.file.sha256] : [])),
    [rows],
  );
  useEffect(() => {
    for (const sha256 of files) {
      if (asked.has(sha256)) continue;
      asked.add(sha256);
      void readClip((remote) => remote.motionOf(sha256)).then(
        (motion) => useMotions.setState({ [sha256]: motion }),
        () => asked.delete(sha256),
      );
    }
  }, [files]);
  return useMotions();
}
