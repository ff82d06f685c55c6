import { flushSync } from 'react-dom';

const FIELDS = 'input:not([type=hidden], [type=checkbox], [type=radio], [type=file]), textarea, [role=combobox]';

/**
 * Does what opens fields, and leads the keyboard into the first of those that were not there before: what is typed next goes into
 * it, and is no key of the desk.
 */
export function opening(run: () => void): void {
  const before = new Set(document.querySelectorAll(FIELDS));
  flushSync(run);
  for (const field of document.querySelectorAll<HTMLElement>(FIELDS))
    if (!before.has(field)) {
      field.focus();
      return;
    }
}
