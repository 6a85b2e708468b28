import { LIGHTNESS_JUMP } from '@eskovan/core/colour';
import { useProject } from '../../data/use-project.ts';
import { Button } from '../../kit/index.ts';
import { setShot } from './edit-reel.ts';
import { lightOfShot, type OpenReel } from './open-reel.ts';

/** How light the two pictures are; where that jumps, the light of the other shot is offered. */
export function JoinLight({
  open,
  index,
  light: [first = null, second = null],
}: {
  open: OpenReel;
  index: number;
  light: readonly (number | null)[];
}) {
  const document = useProject();
  if (first === null || second === null) return null;
  const [before, after] = [open.shots[index - 1]!, open.shots[index]!];
  const jumps = Math.abs(second - first) > LIGHTNESS_JUMP && open.plan.shots[index]!.join === null;
  const lights = [before, after].map(({ body }) => lightOfShot(document, body) ?? null);
  const lit = [before, after].every(({ body: { use } }) => use.kind === 'move' || use.kind === 'view');
  return (
    <div className="mt-1">
      <span className="font-mono text-sm" data-testid="join-light">
        {first.toFixed(0)} → {second.toFixed(0)}
      </span>{' '}
      <span className="text-ink-soft">lightness, of 100</span>
      {jumps && (
        <p className="text-sm text-ink-soft">
          The picture is suddenly much {second > first ? 'lighter' : 'darker'}. A dissolve would soften it
          {lit && lights[0] !== lights[1] ? ', and so would one light for both' : ''}.
        </p>
      )}
      {jumps && lit && lights[0] !== lights[1] && (
        <Button
          small
          className="mt-1"
          onClick={() => setShot(open, after, 'Light', (body) => ({ ...body, light: lights[0]! }))}
        >
          In the light of {before.name}
        </Button>
      )}
    </div>
  );
}
