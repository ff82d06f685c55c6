/**
 * Something that changes over time and is shown: a component reads `view` and hears of each change by `subscribe`
 * (`useSyncExternalStore`). So what happens on a screen is tried without one.
 */
export class Shown<View extends object> {
  #view: View;
  readonly #listeners = new Set<() => void>();

  constructor(view: View) {
    this.#view = view;
  }

  readonly view = (): View => this.#view;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  protected show(part: Partial<View>): void {
    this.#view = { ...this.#view, ...part };
    for (const listener of this.#listeners) listener();
  }
}
