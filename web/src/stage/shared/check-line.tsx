import { CircleAlert, CircleCheck, CircleDot } from 'lucide-react';
import type { ReactNode } from 'react';
import { cx } from '../../kit/index.ts';

const LOOKS = {
  fine: { Icon: CircleCheck, color: 'text-moss', says: null },
  note: { Icon: CircleDot, color: 'text-ochre', says: 'Note' },
  problem: { Icon: CircleAlert, color: 'text-madder', says: 'Problem' },
} as const;

/** What a check has to say, in a list of them. */
export function CheckLine({ severity, children }: { severity: keyof typeof LOOKS; children: ReactNode }) {
  const { Icon, color, says } = LOOKS[severity];
  return (
    <li className="flex gap-2">
      <Icon
        size={15}
        className={cx('mt-0.5 shrink-0', color)}
        {...(says ? { 'aria-label': says } : { 'aria-hidden': true })}
      />
      {children}
    </li>
  );
}
