import type { Changed } from '@/core/business/money-settings';
import { LOG_WORDS, type LogKind } from '@/core/log/kinds';
import { csvText, momentCell } from './write';

type Entry = {
  readonly kind: LogKind;
  readonly byName: string;
  readonly address: string;
  readonly changes: readonly Changed[];
  readonly notedAt: Date;
};

const HEADINGS = ['when', 'who', 'what', 'from where', 'of what', 'old value', 'new value'];

export const logCsvHead = (): string => csvText(HEADINGS, []);

/** Entries as rows: one for each value that was changed, or one where none was. @param zone in which moments are written */
export function logCsvRows(entries: readonly Entry[], zone: string): string {
  const rows = entries.flatMap(({ kind, byName, address, changes, notedAt }) => {
    const begin = [momentCell(notedAt, zone), byName, LOG_WORDS[kind], address];
    return changes.length === 0
      ? [[...begin, '', '', '']]
      : changes.map(({ what, from, to }) => [...begin, what, from, to]);
  });
  const [, ...text] = csvText(HEADINGS, rows).split('\r\n');
  return text.join('\r\n');
}
