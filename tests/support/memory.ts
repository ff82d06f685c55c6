/** A browser's memory for tests. */
export class TestMemory extends Map<string, string> {
  readonly getItem = (name: string): string | null => this.get(name) ?? null;
  readonly setItem = (name: string, value: string): void => void this.set(name, value);
  readonly removeItem = (name: string): void => void this.delete(name);
}
