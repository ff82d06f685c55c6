import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readFileSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';

/**
 * An append-only book of events, each on the disk before `append` returns: a stand-in that is killed knows afterwards
 * what it answered before. A line cut off by a kill was never answered, and is left out.
 */
export class Journal<Event> {
  private readonly file: number;
  /** What an earlier run wrote. */
  readonly past: readonly Event[];

  constructor(path: string) {
    mkdirSync(dirname(path), { recursive: true });
    const text = existsSync(path) ? readFileSync(path, 'utf8') : '';
    this.past = text.split('\n').flatMap((line) => {
      try {
        return line ? [JSON.parse(line) as Event] : [];
      } catch {
        return [];
      }
    });
    this.file = openSync(path, 'a');
    if (text && !text.endsWith('\n')) writeSync(this.file, '\n');
  }

  append(event: Event): void {
    this.appendAll([event]);
  }

  /** Several that are answered together: on the disk with one turn of it. */
  appendAll(events: readonly Event[]): void {
    writeSync(this.file, events.map((event) => `${JSON.stringify(event)}\n`).join(''));
    fsyncSync(this.file);
  }

  close(): void {
    closeSync(this.file);
  }
}
