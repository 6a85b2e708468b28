import { mended, type Fix } from '@eskovan/core/check';
import type { MoveBody } from '@eskovan/core/document';
import type { CompiledMove } from '@eskovan/core/move';
import { useProject } from '../../data/use-project.ts';
import { useSiteData } from '../../site/use-site.ts';

/** What a fix would make of a move. @param move as it was when its findings were made */
export function useMend(move: CompiledMove | null): ((body: MoveBody, fix: Fix) => MoveBody) | undefined {
  const { walker, limits } = useProject().project.body;
  const { data: site } = useSiteData();
  if (!move) return undefined;
  const footing = site?.footing ?? null;
  return (body, fix) => mended(body, fix, { move, footing, walker, limits, newId: () => crypto.randomUUID() });
}
