import type { ComponentProps } from 'react';
import { opening } from './opening';

const LOOKS = {
  plain: 'btn',
  /** The one next action of a screen. */
  go: 'btn btn-go',
  /** What takes something away for good. */
  sure: 'btn btn-sure',
  danger: 'btn btn-danger',
  ink: 'btn btn-ink',
  link: 'link',
  'small-link': 'link link-small',
} as const;

type Look = keyof typeof LOOKS;

/** A button. While it is `busy` it cannot be pressed again, and says so in `busyWords`. */
export function Button({
  look = 'plain',
  size = '',
  busy = false,
  busyWords,
  className = '',
  type = 'button',
  disabled,
  opens = false,
  onClick,
  children,
  ...more
}: ComponentProps<'button'> & {
  look?: Look;
  /** It opens fields, into the first of which the next letter goes. */
  opens?: boolean;
  /** `low` in rows and bands, `tall` where a customer presses it. */
  size?: '' | 'low' | 'tall';
  busy?: boolean;
  busyWords?: string;
}) {
  return (
    <button
      type={type}
      className={[LOOKS[look], size ? `btn-${size}` : '', className].filter(Boolean).join(' ')}
      disabled={disabled || busy}
      aria-busy={busy || undefined}
      onClick={opens ? (event) => opening(() => onClick?.(event)) : onClick}
      {...more}
    >
      {busy && busyWords ? busyWords : children}
    </button>
  );
}
