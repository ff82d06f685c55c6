import type { CalendarDate } from '../dates/calendar-date';
import { shortDate } from '../dates/date-text';
import type { Seller } from '../invoice/printed';
import type { PayoutTable, PayoutWorking } from './working';

/** A line of a working, signed: what goes off is below 0; minor units. */
export type WorkingLine = {
  readonly key: string;
  readonly label: string;
  /** What else is to be known of it; empty for nothing. */
  readonly about: string;
  readonly minor: bigint;
  /** A sum of the lines before it. */
  readonly isSum?: boolean;
};

/** A payout, or a partner's month, as it is set on paper; minor units. */
export type PayoutPaper = {
  readonly seller: Seller;
  readonly accent: string;
  readonly locale: string;
  readonly currency: string;
  readonly title: string;
  readonly facts: readonly string[];
  /** To whom it goes. */
  readonly to: readonly string[];
  readonly table: {
    readonly heads: readonly string[];
    readonly rows: readonly (readonly [string, ...bigint[]])[];
  } | null;
  readonly lines: readonly WorkingLine[];
  readonly total: { readonly label: string; readonly minor: bigint };
  readonly words: readonly string[];
};

/** How a channel is called where its payments stand in a column. */
export const CHANNEL_COLUMNS: Readonly<Record<string, string>> = {
  invoice: 'Invoices',
  link: 'Links',
  page: 'Pages',
  button: 'Buttons',
  plan: 'Plans',
  desk: 'Desk',
};

/** What of a partner's payout, or of what they have to come, a payment brought. */
export type PartLine = {
  readonly id: string;
  readonly kind: 'share' | 'reversal' | 'by-hand' | 'came-back' | 'disputed' | 'dispute-won';
  readonly day: CalendarDate;
  readonly payer: string;
  readonly subject: string;
  readonly ofMinor: bigint;
  readonly minor: bigint;
};

const PART_WORDS = {
  reversal: 'Refund',
  'by-hand': 'Paid by hand',
  'came-back': 'Came back',
  disputed: 'Disputed',
  'dispute-won': 'Dispute won',
} as const;

/** What a line of a partner's is called. */
export const partLabel = ({ kind, subject, payer }: Pick<PartLine, 'kind' | 'subject' | 'payer'>): string =>
  kind === 'share' ? subject || payer : [PART_WORDS[kind], subject].filter(Boolean).join(', ');

const counted = (count: number, one: string, many: string): string => (count === 1 ? one : `${many}, ${count}`);

/** What is worked out for the business's own payout. */
export type WorkedPayout = {
  readonly days: readonly { readonly day: CalendarDate; readonly heldUntil: CalendarDate | null }[];
  readonly released: readonly { readonly day: CalendarDate }[];
  readonly working: PayoutWorking;
  readonly partners: readonly { readonly partnerId: string; readonly name: string; readonly minor: bigint }[];
};

/** From `16 Nov` to `22 Nov`, or the one day. */
export function spanText(days: readonly { readonly day: CalendarDate }[], locale: string): string {
  const [first, last] = [days[0]?.day, days.at(-1)?.day];
  if (!first || !last) return '';
  return first === last ? shortDate(first, locale) : `${shortDate(first, locale)} – ${shortDate(last, locale)}`;
}

/** The lines from the card payments down to what is paid; they add up to it. */
export function workingLines({ days, released, working, partners }: WorkedPayout, locale: string): WorkingLine[] {
  const lines: WorkingLine[] = [];
  const add = (key: string, label: string, minor: bigint, about = '', isSum = false) =>
    lines.push({ key, label, about, minor, ...(isSum ? { isSum } : {}) });
  add('sales', counted(working.sales, 'One card payment', 'Card payments'), working.salesMinor);
  if (working.feesMinor !== 0n) add('fees', 'Card fees', -working.feesMinor);
  if (working.backs > 0) add('backs', counted(working.backs, 'One refund', 'Refunds'), -working.backMinor);
  if (working.disputes > 0)
    add(
      'disputes',
      counted(working.disputes, 'One dispute, with its fee', 'Disputes, with their fees'),
      -working.disputedMinor,
    );
  for (const { partnerId, name, minor } of partners)
    if (minor !== 0n) add(`partner ${partnerId}`, `Part of ${name}`, -minor);
  add('days', days.length === 1 ? 'The day' : `${days.length} days`, working.daysMinor, '', true);
  const until = days.flatMap(({ heldUntil }) => heldUntil ?? []).sort();
  if (working.reservedMinor > 0n)
    add(
      'reserved',
      'Held back',
      -working.reservedMinor,
      until.length > 0
        ? `until ${spanText(
            until.map((day) => ({ day })),
            locale,
          )}`
        : '',
    );
  if (working.releasedMinor > 0n)
    add(
      'released',
      'Released',
      working.releasedMinor,
      released.length > 0 ? `held since ${spanText(released, locale)}` : '',
    );
  return lines;
}

/** What of a partner's payout came by which payment. */
export const partLines = (movements: readonly PartLine[], locale: string): WorkingLine[] =>
  movements.map((one) => ({
    key: one.id,
    label: partLabel(one),
    about: [one.kind === 'share' && one.subject ? one.payer : '', shortDate(one.day, locale)]
      .filter(Boolean)
      .join(', '),
    minor: one.minor,
  }));

/** What a payout's sheet holds, as far as it stands on paper. */
export type PayoutOnPaper = {
  readonly payout: {
    readonly number: number;
    readonly partnerId: string | null;
    readonly partner: string;
    readonly currency: string;
    readonly madeOn: CalendarDate;
    readonly amountMinor: bigint;
    readonly accountNumber: string;
    readonly accountHolder: string;
  };
  readonly reference: string;
  readonly days: WorkedPayout['days'];
  readonly released: WorkedPayout['released'];
  readonly table: PayoutTable | null;
  readonly working: PayoutWorking | null;
  readonly partners: WorkedPayout['partners'];
  readonly movements: readonly PartLine[];
};

/** A payout as a statement. */
export function payoutPaper(
  sheet: PayoutOnPaper,
  seller: Seller,
  { accent, locale }: { readonly accent: string; readonly locale: string },
): PayoutPaper {
  const { payout, days, table, working } = sheet;
  return {
    seller,
    accent,
    locale,
    currency: payout.currency,
    title: `Payout ${payout.number}`,
    facts: [
      `Paid out ${shortDate(payout.madeOn, locale, { weekday: true, year: true })}`,
      ...(days.length > 0 ? [`For ${spanText(days, locale)}`] : []),
      `Reference ${sheet.reference}`,
    ],
    to: [payout.partner || payout.accountHolder, `Account ${payout.accountNumber}`],
    table: table && {
      heads: ['Day', ...table.channels.map((channel) => CHANNEL_COLUMNS[channel] ?? channel), 'All'],
      rows: [
        ...table.rows.map(
          ({ day, minors, allMinor }) =>
            [shortDate(day, locale, { weekday: true }), ...minors, allMinor] as [string, ...bigint[]],
        ),
        ['Cards', ...table.totals, table.allMinor],
      ],
    },
    lines: working ? workingLines({ ...sheet, working }, locale) : partLines(sheet.movements, locale),
    total: { label: 'Paid out', minor: payout.amountMinor },
    words: [],
  };
}

/** A partner's month; minor units. */
export type PartnerMonth = {
  readonly partner: string;
  readonly currency: string;
  readonly from: CalendarDate;
  readonly to: CalendarDate;
  /** What was to come to them before. */
  readonly beforeMinor: bigint;
  readonly movements: readonly PartLine[];
  readonly payouts: readonly {
    readonly number: number;
    readonly settledOn: CalendarDate;
    readonly amountMinor: bigint;
  }[];
};

/** What is to come to a partner at the end of a month: what was before, what moved, less what arrived. */
export const afterMonth = ({ beforeMinor, movements, payouts }: PartnerMonth): bigint =>
  movements.reduce((all, { minor }) => all + minor, beforeMinor) -
  payouts.reduce((all, { amountMinor }) => all + amountMinor, 0n);

/** A partner's month as a statement. */
export function partnerPaper(
  month: PartnerMonth,
  seller: Seller,
  { accent, locale }: { readonly accent: string; readonly locale: string },
): PayoutPaper {
  const { partner, currency, from, to, beforeMinor, movements, payouts } = month;
  return {
    seller,
    accent,
    locale,
    currency,
    title: 'Your part',
    facts: [`${shortDate(from, locale, { year: true })} – ${shortDate(to, locale, { year: true })}`],
    to: [partner],
    table: null,
    lines: [
      { key: 'before', label: 'To come before', about: '', minor: beforeMinor },
      ...partLines(movements, locale),
      ...payouts.map(({ number, settledOn, amountMinor }) => ({
        key: `payout ${number}`,
        label: `Payout ${number}`,
        about: `arrived ${shortDate(settledOn, locale)}`,
        minor: -amountMinor,
      })),
    ],
    total: { label: 'Still to come', minor: afterMonth(month) },
    words: [`The card fees are borne as agreed with ${seller.name}. Answer this letter with any question.`],
  };
}
