const PREFIX = 'dahlia:typed:';

/** What was typed into a form in this window and not sent; null for nothing. A window that keeps nothing is no trouble. */
export function typedBefore<Values>(name: string): Partial<Values> | null {
  try {
    const kept = sessionStorage.getItem(PREFIX + name);
    return kept ? (JSON.parse(kept) as Partial<Values>) : null;
  } catch {
    return null;
  }
}

export function keepTyped(name: string, values: object): void {
  try {
    sessionStorage.setItem(PREFIX + name, JSON.stringify(values));
  } catch {
    // Full or forbidden: the form works without.
  }
}

export function forgetTyped(name: string): void {
  try {
    sessionStorage.removeItem(PREFIX + name);
  } catch {
    // As above.
  }
}
