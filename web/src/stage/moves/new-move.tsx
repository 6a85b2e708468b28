import { DropdownMenu } from 'radix-ui';
import { Button } from '../../kit/index.ts';
import { ABOUT, KINDS, type KindName } from './kind-about.tsx';
import { KindPicture } from './kind-picture.tsx';

/** Chooses what kind of move to begin. */
export function NewMove({ onNew }: { onNew: (kind: KindName) => void }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button className="justify-center">Other move</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          side="top"
          sideOffset={6}
          className="z-50 w-90 rounded-[10px] border border-rule bg-raised p-1.5 shadow-lift"
        >
          {KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              onSelect={() => onNew(kind)}
              textValue={ABOUT[kind].label}
              className="flex items-center gap-3 rounded-lg p-1.5 outline-none data-[highlighted]:bg-lagoon-wash"
            >
              <KindPicture kind={kind} />
              <span className="min-w-0">
                <span className="block font-semibold">{ABOUT[kind].label}</span>
                <span className="block text-sm text-ink-soft">{ABOUT[kind].note}</span>
              </span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The same where nothing moves yet: what there is to begin with. */
export function FirstMoves({ onNew }: { onNew: (kind: KindName) => void }) {
  return (
    <>
      <p className="mb-2">Nothing moves yet. Draw the first walk on the plan, or begin with another kind.</p>
      {KINDS.map((kind) => (
        <button
          key={kind}
          type="button"
          className="flex w-full items-center gap-2.5 rounded-lg p-1 text-left hover:bg-lagoon-wash"
          title={ABOUT[kind].note}
          onClick={() => onNew(kind)}
        >
          <KindPicture kind={kind} />
          <span className="font-semibold text-ink">{ABOUT[kind].label}</span>
        </button>
      ))}
    </>
  );
}
