import { csvAmount, csvDay, dayOrderOf, decimalOf } from '../bank/statement/csv';
import { type CalendarDate, calendarDate, monthEnd } from '../dates/calendar-date';
import type { Table } from '../file/table';
import { cellOf, guessedColumns } from '../import/columns';
import { RuleError } from '../rule-error';

/** What stands on a carrier's statement: money put there, labels, labels given back, claims paid, what was charged or credited afterwards. */
export const STATEMENT_KINDS = ['top-up', 'label', 'void', 'claim', 'surcharge', 'other'] as const;
export type StatementKind = (typeof STATEMENT_KINDS)[number];

/** One entry; minor units of the statement's currency, what leaves the balance is below 0. Plain JSON. */
export type StatementEntry = {
  readonly on: CalendarDate;
  readonly kind: StatementKind;
  /** The item number of the parcel; empty where it is about none. */
  readonly number: string;
  /** What we called it when we asked for it. */
  readonly reference: string;
  readonly words: string;
  readonly minor: number;
};

/** A month at the carrier; opening and closing are null where the file does not say them. */
export type CarrierStatement = {
  /** The first day of the month. */
  readonly month: CalendarDate;
  readonly openingMinor: number | null;
  readonly closingMinor: number | null;
  readonly entries: readonly StatementEntry[];
};

/** Carriers have been asked by programs since this century. */
const USUAL_YEAR = /^2[01]\d\d-/;

/** No month of a small business has more; a file that does is another one. */
const MOST_ENTRIES = 20_000;

const HEADINGS = {
  on: /^((booking|posting|entry) ?)?(date|day)$|^datum$|^buchungstag$|^fecha$/i,
  kind: /^(entry|kind|type|what|art|vorgang|op[eé]ration|concepto|tipo)$/i,
  number:
    /^(item|item (no\.?|number)|tracking( ?(no\.?|number))?|parcel( ?(no\.?|number))?|sendung(snummer)?|colis|n[uú]mero)$/i,
  reference: /^(reference|your reference|ref\.?|referenz|r[eé]f[eé]rence|referencia)$/i,
  words: /^(details|description|text|note|bemerkung|libell[eé]|detalle)$/i,
  amount: /^(amount|sum|betrag|montant|importe)( .*)?$/i,
  balance: /^(balance|saldo|solde)( .*)?$/i,
} as const;

const KIND_WORDS: readonly (readonly [StatementKind | 'opening' | 'closing', RegExp])[] = [
  ['opening', /^(opening|brought forward|anfangs|ancien|saldo inicial)/i],
  ['closing', /^(closing|carried forward|end(saldo|bestand)|nouveau|saldo final)/i],
  ['top-up', /top.?up|deposit|payment received|aufladung|einzahlung|recharge|versement|abono de fondos/i],
  ['void', /void|cancel|given back|storno|annul/i],
  ['claim', /claim|compensation|schaden|indemni/i],
  ['surcharge', /surcharge|adjust|re.?weigh|correction|zuschlag|nachbelastung|supplément|recargo/i],
  ['label', /label|postage|shipment|parcel|porto|sendung|affranchissement|etiqueta/i],
];

/**
 * Reads a carrier's statement from a table: its columns by their headings in four languages, days and decimals as the file writes them.
 * Rows without a sum are passed over.
 *
 * @throws RuleError `bad_input` in words where a column is missing, or a row cannot be read; `bad_date`
 */
export function readCarrierStatement({ headings, rows, lines, broken }: Table, currency: string): CarrierStatement {
  const mapping = guessedColumns(headings, HEADINGS);
  const missing = (['on', 'kind', 'amount'] as const).find((field) => !mapping.includes(field));
  if (missing)
    throw new RuleError(
      'bad_input',
      `no column for the ${{ on: 'day', kind: 'kind of entry', amount: 'amount' }[missing]}`,
    );
  if (rows.length > MOST_ENTRIES) throw new RuleError('bad_input', `more than ${MOST_ENTRIES} rows`);
  const [first] = broken;
  if (first) throw new RuleError('bad_input', `line ${first.line}: ${first.words}`);
  const cells = rows.map((row) => cellOf(row, mapping));
  const order = dayOrderOf(cells.map((cell) => cell('on')));
  const decimal = decimalOf(cells.flatMap((cell) => [cell('amount'), cell('balance')]));
  const sum = (text: string) => {
    const minor = csvAmount(text, decimal, currency);
    return minor === null ? null : Number(minor);
  };
  let openingMinor: number | null = null;
  let closingMinor: number | null = null;
  const entries: StatementEntry[] = [];
  for (const [at, cell] of cells.entries()) {
    try {
      const kind = KIND_WORDS.find(([, words]) => words.test(cell('kind')))?.[0] ?? 'other';
      const minor = sum(cell('amount'));
      if (kind === 'opening') openingMinor = sum(cell('balance')) ?? minor;
      else if (kind === 'closing') closingMinor = sum(cell('balance')) ?? minor;
      else if (minor !== null && minor !== 0)
        entries.push({
          ...{ on: csvDay(cell('on'), order), kind, minor },
          number: cell('number').replace(/\s/g, '').toUpperCase().slice(0, 40),
          reference: cell('reference').slice(0, 120),
          words: cell('words').slice(0, 200),
        });
    } catch (error) {
      if (error instanceof RuleError) throw new RuleError(error.code, `line ${lines[at] ?? at + 2}: ${error.message}`);
      throw error;
    }
  }
  const months = new Set(entries.map(({ on }) => on.slice(0, 7)));
  if (months.size === 0) throw new RuleError('bad_input', 'there is no entry in it');
  if (months.size > 1) throw new RuleError('bad_input', 'it holds more than one month');
  if (![...months].every((one) => USUAL_YEAR.test(one))) throw new RuleError('bad_input', 'it is of no year of ours');
  return { month: calendarDate(`${[...months][0]}-01`), openingMinor, closingMinor, entries };
}

/** What we have of a month: by the key under which the carrier was asked. */
export type OwnMove = {
  readonly key: string;
  readonly kind: 'top-up' | 'label' | 'void' | 'claim' | 'correction';
  readonly number: string;
  /** The carrier's day, in UTC. */
  readonly on: CalendarDate;
  readonly minor: number;
};

/** How an entry stands to ours. */
export type Verdict = 'agrees' | 'sum-differs' | 'not-ours' | 'twice' | 'not-theirs' | 'next-month';

export const VERDICT_WORDS: Readonly<Record<Exclude<Verdict, 'agrees'>, string>> = {
  'sum-differs': 'Another sum than ours',
  'not-ours': 'Not in our books',
  twice: 'Stands there twice',
  'not-theirs': 'Only in our books',
  'next-month': 'Stands on the next one',
};

/** An entry beside ours; `leftMinor` is what theirs is above ours, 0 where both agree or it was booked. */
export type ComparedEntry = {
  readonly key: string;
  readonly theirs: StatementEntry | null;
  readonly ours: OwnMove | null;
  readonly verdict: Verdict;
  /** What was booked to agree with it. */
  readonly correctedMinor: number;
  readonly leftMinor: number;
};

export type Comparison = {
  readonly entries: readonly ComparedEntry[];
  /** How far their opening is from what we had before the month; null where they do not say it. */
  readonly openingMinor: number | null;
  /** How far their own entries miss their own closing; null where they do not say both. */
  readonly sumMinor: number | null;
};

/** The key of what was booked to agree with an entry, beside what was booked for it before (minor units). */
export const correctionKey = (month: CalendarDate, entry: string, before = 0): string =>
  `correction:${month.slice(0, 7)}:${entry}${before === 0 ? '' : `#${before}`}`;

/** So long before its end an entry may be on the statement of the month after: clocks and nights differ. */
const EDGE_DAYS = 1;

/**
 * Compares a statement with ours, entry by entry: by the reference under which the carrier was asked, else by the kind and the number; each
 * of ours once. What was booked before to agree with an entry counts for it.
 *
 * @param before what the balance was by our books before the month began
 */
export function compareStatement(
  { month, openingMinor, closingMinor, entries }: CarrierStatement,
  moves: readonly OwnMove[],
  before: number,
): Comparison {
  const open = new Map(moves.filter(({ kind }) => kind !== 'correction').map((move) => [move.key, move]));
  const corrected = (key: string) =>
    moves
      .filter((move) => move.kind === 'correction' && move.key.replace(/#-?\d+$/, '') === correctionKey(month, key))
      .reduce((all, { minor }) => all + minor, 0);
  const known = new Set<string>();
  const seen = new Map<string, number>();
  const keyOf = ({ kind, reference, number, on }: StatementEntry): string => {
    // The sign is what parts of a correction's key are told by.
    const name = `${kind}:${reference || number || on}`.replaceAll('#', '');
    const nth = (seen.get(name) ?? 0) + 1;
    seen.set(name, nth);
    return nth === 1 ? name : `${name}:${nth}`;
  };
  const mine = ({ kind, reference, number }: StatementEntry): OwnMove | undefined =>
    open.get(reference) ??
    [...open.values()].find((move) => number !== '' && move.kind === kind && move.number === number);
  const compared = entries.map((theirs): ComparedEntry => {
    const key = keyOf(theirs);
    const ours = mine(theirs) ?? null;
    const name = `${theirs.kind} ${theirs.reference || theirs.number}`;
    const isTwice = !ours && known.has(name);
    if (ours) open.delete(ours.key);
    known.add(name);
    const correctedMinor = corrected(key);
    return {
      ...{ key, theirs, ours, correctedMinor },
      verdict: ours ? (ours.minor === theirs.minor ? 'agrees' : 'sum-differs') : isTwice ? 'twice' : 'not-ours',
      leftMinor: theirs.minor - (ours?.minor ?? 0) - correctedMinor,
    };
  });
  const last = monthEnd(month);
  const ownOnly = [...open.values()].flatMap((ours): ComparedEntry[] => {
    if (ours.on.slice(0, 7) !== month.slice(0, 7)) return [];
    const key = `ours:${ours.key}`;
    const correctedMinor = corrected(key);
    const isEdge = Number(last.slice(8)) - Number(ours.on.slice(8)) < EDGE_DAYS;
    return [
      {
        ...{ key, theirs: null, ours, correctedMinor },
        verdict: isEdge ? 'next-month' : 'not-theirs',
        leftMinor: isEdge ? 0 : -ours.minor - correctedMinor,
      },
    ];
  });
  const sum = entries.reduce((all, { minor }) => all + minor, 0);
  return {
    entries: [...compared, ...ownOnly],
    openingMinor: openingMinor === null ? null : openingMinor - before,
    sumMinor: openingMinor === null || closingMinor === null ? null : closingMinor - openingMinor - sum,
  };
}
