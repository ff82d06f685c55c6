/** How large what is sent may be in form, whatever it says: looked at before any rule of a field is tried. */
export const PLAIN_LIMITS = { depth: 14, entries: 20_000, names: 200, values: 150_000 } as const;

// Names through which an object could be made to be another than it is.
const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

/** Whether a text can be kept: no NUL, which the database refuses, and no half of a sign, which is no text at all. */
export const isStorable = (text: string): boolean => !text.includes('\u0000') && text.isWellFormed();

/**
 * What is wrong with the form of a parsed JSON value, in words; null where it can be looked at further. Walks without
 * recursion, so nothing that is sent can exhaust the stack.
 *
 * @param value what `JSON.parse` made
 */
export function plainTrouble(value: unknown): string | null {
  const waiting: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  let values = 0;
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (++values > PLAIN_LIMITS.values) return 'More was sent than is ever needed.';
    if (typeof at.value === 'string' && !isStorable(at.value)) return 'A text holds signs that cannot be kept.';
    if (typeof at.value !== 'object' || at.value === null) continue;
    if (at.depth === PLAIN_LIMITS.depth) return 'What was sent lies too deep.';
    if (Array.isArray(at.value)) {
      if (at.value.length > PLAIN_LIMITS.entries) return `A list holds ${PLAIN_LIMITS.entries} entries at most.`;
    } else {
      const names = Object.keys(at.value);
      if (names.length > PLAIN_LIMITS.names) return `An object holds ${PLAIN_LIMITS.names} fields at most.`;
      if (names.some((name) => FORBIDDEN.has(name) || !isStorable(name)))
        return 'A field has a name that is not taken.';
    }
    for (const inner of Object.values(at.value)) waiting.push({ value: inner, depth: at.depth + 1 });
  }
  return null;
}
