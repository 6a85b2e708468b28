import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { cx } from './cx.ts';

export interface MenuItem {
  label: string;
  icon?: ReactNode;
  shortcut?: string;
  danger?: boolean;
  disabled?: boolean;
  onSelect: () => void;
}

interface MenuProps {
  trigger: ReactNode;
  /** A function is asked when the menu opens. */
  items: readonly MenuItem[] | (() => readonly MenuItem[]);
}

export function Menu({ trigger, items }: MenuProps) {
  return (
    // What lies around it stays reachable: it is closed by pressing there.
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-50 min-w-40 rounded-[10px] border border-rule bg-raised p-1 shadow-lift"
        >
          <Items items={items} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Items({ items }: Pick<MenuProps, 'items'>) {
  return (typeof items === 'function' ? items() : items).map((item) => (
    <DropdownMenu.Item
      key={item.label}
      disabled={item.disabled ?? false}
      aria-keyshortcuts={item.shortcut}
      onSelect={item.onSelect}
      className={cx(
        'flex h-7 items-center gap-2 rounded-md px-2 outline-none data-[disabled]:opacity-45 data-[highlighted]:bg-lagoon-wash',
        item.danger && 'text-madder',
      )}
    >
      {item.icon}
      <span className="grow">{item.label}</span>
      {item.shortcut && (
        <kbd aria-hidden className="font-mono text-xs text-ink-faint">
          {item.shortcut}
        </kbd>
      )}
    </DropdownMenu.Item>
  ));
}
