import { MoreHorizontal } from 'lucide-react';
import { Button, cx, Menu, type MenuItem } from '../../kit/index.ts';

interface MoreMenuProps {
  /** What it is for. */
  of: string;
  items: readonly MenuItem[] | (() => readonly MenuItem[]);
  /** Where it stands in what it is for. */
  className: string;
}

/** What more can be done with an entry of a list: seen while the pointer or the focus is in it. */
export function MoreMenu({ of, items, className }: MoreMenuProps) {
  return (
    <Menu
      trigger={
        <Button
          tone="quiet"
          small
          icon={<MoreHorizontal size={15} />}
          aria-label={`More for ${of}`}
          className={cx(
            'absolute! opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 data-[state=open]:opacity-100',
            className,
          )}
        />
      }
      items={items}
    />
  );
}
