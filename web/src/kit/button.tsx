import type { ButtonHTMLAttributes, ReactNode, Ref } from 'react';
import { cx } from './cx.ts';

type Tone = 'plain' | 'primary' | 'quiet' | 'danger' | 'surround';

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  tone?: Tone;
  /** Shown before the words, or alone with `aria-label`. */
  icon?: ReactNode;
  /** Pressed state of a switch-like button. */
  pressed?: boolean;
  small?: boolean;
  ref?: Ref<HTMLButtonElement>;
}

const TONES: Record<Tone, string> = {
  plain: 'bg-raised border-rule text-ink hover:border-ink-faint',
  primary: 'bg-lagoon border-lagoon text-paper hover:brightness-110',
  quiet: 'bg-transparent border-transparent text-ink-soft hover:bg-ink/5 hover:text-ink',
  danger: 'bg-raised border-rule text-madder hover:border-madder',
  surround: 'bg-surround-raised border-surround-rule text-surround-ink hover:border-surround-soft',
};

export function Button({
  tone = 'plain',
  icon,
  pressed,
  small,
  className,
  children,
  type = 'button',
  ...rest
}: ButtonProps) {
  return (
    <button
      type={type}
      aria-pressed={pressed}
      className={cx(
        'inline-flex shrink-0 items-center justify-center gap-1.5 rounded-lg border font-medium whitespace-nowrap transition-colors duration-150 disabled:opacity-45',
        small ? 'h-7 text-sm' : 'h-8',
        children ? (small ? 'px-2' : 'px-3') : small ? 'w-7' : 'w-8',
        TONES[tone],
        pressed && (tone === 'surround' ? 'border-ochre! text-ochre!' : 'border-lagoon! bg-lagoon-wash! text-lagoon!'),
        className,
      )}
      {...rest}
    >
      {icon}
      {children}
    </button>
  );
}
