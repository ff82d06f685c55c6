import { XMLParser } from 'fast-xml-parser';
import Papa from 'papaparse';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { isCurrency } from '@/core/money/currency';
import type { RateTable } from '@/core/money/rates';

const MOST_DIGITS = 10;

/** A rate as a plain decimal with at most ten digits after the point; null for anything else, also for 0. */
function rateOf(text: unknown): string | null {
  const match = /^\s*(\d{1,9})(?:\.(\d+))?\s*$/.exec(String(text ?? ''));
  if (!match) return null;
  const fraction = (match[2] ?? '').slice(0, MOST_DIGITS).replace(/0+$/, '');
  const rate = `${Number(match[1])}${fraction ? `.${fraction}` : ''}`;
  return rate === '0' ? null : rate;
}

const tableOf = (on: string, cells: readonly (readonly [string, unknown])[]): RateTable | null => {
  const known = cells.flatMap(([currency, typed]) => {
    const rate = rateOf(typed);
    return isCurrency(currency) && currency !== 'EUR' && rate ? [[currency, rate] as const] : [];
  });
  return isCalendarDate(on) && known.length > 0 ? { on, perEuro: Object.fromEntries(known) } : null;
};

/** Every object in a tree of parsed XML that carries this attribute. */
function withAttribute(node: unknown, name: string): Record<string, unknown>[] {
  if (Array.isArray(node)) return node.flatMap((one) => withAttribute(one, name));
  if (typeof node !== 'object' || node === null) return [];
  const own = node as Record<string, unknown>;
  return [...(name in own ? [own] : []), ...Object.values(own).flatMap((child) => withAttribute(child, name))];
}

function fromXml(text: string): RateTable[] {
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@', processEntities: false });
  return withAttribute(parser.parse(text), '@time').flatMap((day) => {
    const cells = withAttribute(day, '@currency').map((cell) => [String(cell['@currency']), cell['@rate']] as const);
    return tableOf(String(day['@time']), cells) ?? [];
  });
}

/** Days as they are written in such files: 2026-11-20 or 20 November 2026. */
function dayOf(text: string): string {
  if (isCalendarDate(text.trim())) return text.trim();
  if (/^\d+-/.test(text.trim())) return '';
  const at = Date.parse(`${text.trim()} UTC`);
  return Number.isNaN(at) ? '' : new Date(at).toISOString().slice(0, 10);
}

function fromCsv(text: string): RateTable[] {
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: true });
  const [head = [], ...rows] = data;
  return rows.flatMap((row) => {
    const cells = head.slice(1).map((name, at) => [name.trim(), row[at + 1]] as const);
    return tableOf(dayOf(row[0] ?? ''), cells) ?? [];
  });
}

/**
 * Reads euro reference rates: XML with a day's `time` around `currency` and `rate`, or CSV with a column a currency. Latest first;
 * what is no rate is left out, and none at all gives an empty list.
 */
export function readRates(text: string): RateTable[] {
  try {
    const tables = text.trimStart().startsWith('<') ? fromXml(text) : fromCsv(text);
    return tables.sort((a, b) => (a.on < b.on ? 1 : -1));
  } catch {
    return [];
  }
}
