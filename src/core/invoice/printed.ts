import type { CalendarDate } from '../dates/calendar-date';
import { isCalendarDate } from '../dates/calendar-date';
import type { Handed, Unit } from '../item/item';
import { jsonMinor } from '../money/money';
import type { ExemptAs } from '../paper/exempt';
import type { Paper, PaperFile } from '../paper/paper';
import type { Address } from '../place/address';
import type { TallyDocument } from '../tally/document';
import { dueDate } from './due';
import type { PaperReading } from './read-paper';
import { firstPaymentMinor } from './sending';

/** Where a bank transfer goes, as written by the business; `account` an IBAN or a number. */
export type BankDetails = {
  readonly holder: string;
  readonly account: string;
  readonly bankCode: string;
  readonly bank: string;
};

/** The business's own account for transfers, and others for single currencies. */
export type BusinessBank = BankDetails & {
  readonly others?: readonly (BankDetails & { readonly currency: string })[];
};

/** Which of them a currency's transfers go to: its own where one is given, else the usual one. */
export function bankFor(business: BusinessBank, currency: string): BankDetails {
  const own = business.others?.find((one) => one.currency === currency && one.account !== '');
  const { holder, account, bankCode, bank } = own ?? business;
  return { holder, account, bankCode, bank };
}

/** Who sends the invoice, as it stands on the paper. */
export type Seller = {
  readonly name: string;
  /** Who stands behind the name, where that is a trading name; the address begins with it. */
  readonly legalName?: string;
  readonly address: readonly string[];
  readonly phone: string;
  readonly email: string;
  readonly website: string;
  readonly taxNumber: string;
  /** ISO 3166-1; empty where it was not kept. */
  readonly country?: string;
  /** The address in parts; none where it was not kept. */
  readonly place?: Address;
};

/** Who pays, as it stands on the paper. */
export type Payer = {
  readonly name: string;
  readonly address: readonly string[];
  readonly email: string;
  readonly taxNumber?: string;
  readonly country?: string;
  readonly place?: Address;
};

/** A line as printed; amounts in minor units as safe integers, decimals as strings. */
export type PrintedLine = {
  readonly what: string;
  readonly unit: Unit;
  readonly quantity: string;
  readonly unitPrice: string;
  readonly gross: number;
  readonly discount: number;
  readonly discountText: string;
  readonly net: number;
  readonly taxes: readonly string[];
  /** The taxes' ids, for what has to tell two of one name apart. */
  readonly taxIds?: readonly string[];
  readonly note?: string;
  readonly on?: string;
  /** The business's own code of what it is. */
  readonly code?: string;
  /** How it comes to the customer; none where nobody said. */
  readonly handed?: Handed;
  /** Which item, and which option of it, the line sells. */
  readonly itemId?: string;
  readonly optionId?: string;
};

/** Terms in the version that this invoice was sent with. */
export type PrintedTerms = {
  readonly versionId: string;
  readonly name: string;
  readonly version: number;
  readonly text: string;
};

/** How this invoice can be paid; amounts in minor units. */
export type PrintedWays = {
  readonly card: boolean;
  /** From the payer's bank account, by the processor. */
  readonly debit?: boolean;
  readonly transfer: BankDetails | null;
  readonly parts: boolean;
  readonly firstMinor: number;
  readonly tip: readonly string[] | null;
};

/**
 * What the processor's fields take for an invoice; null where it is not paid through the processor.
 *
 * @param open whether the business can be paid through it (yet)
 */
export const takenBy = (
  { card, debit = false }: Pick<PrintedWays, 'card' | 'debit'>,
  open: boolean,
): 'card' | 'account' | 'both' | null => {
  if (!open) return null;
  return card ? (debit ? 'both' : 'card') : debit ? 'account' : null;
};

/**
 * An invoice as the customer gets it, whole and unchanging from sending on: the page, the e-mail and the PDF are all
 * drawn from this one record. Plain JSON; amounts are minor units.
 */
export type PrintedInvoice = {
  readonly number: string;
  readonly currency: string;
  readonly locale: string;
  readonly issuedOn: CalendarDate;
  readonly dueOn: CalendarDate;
  readonly dueOnReceipt: boolean;
  readonly reference: string;
  readonly note: string;
  readonly seller: Seller;
  readonly payer: Payer;
  readonly pricesIncludeTax: boolean;
  readonly lines: readonly PrintedLine[];
  readonly subtotal: number;
  readonly lineDiscounts: number;
  readonly discount: number;
  readonly discountText: string;
  /** Which lines the discount is limited to, from 0; none where it is on all of them. */
  readonly discountLines?: readonly number[];
  readonly taxes: readonly {
    readonly id: string;
    readonly name: string;
    readonly rate: string;
    readonly base: number;
    readonly amount: number;
  }[];
  readonly taxTotal: number;
  readonly total: number;
  readonly title: string;
  readonly serviceFrom: string;
  readonly serviceTo: string;
  /** What delivery is charged at, and its taxes' ids; null without delivery. */
  readonly delivery: { readonly amount: number; readonly taxIds: readonly string[] } | null;
  readonly fees: readonly { readonly name: string; readonly amount: number; readonly taxIds: readonly string[] }[];
  readonly flatTaxes: readonly { readonly name: string; readonly amount: number }[];
  /** Why no tax applies; empty where taxes do. */
  readonly exempt: string;
  readonly exemptAs: ExemptAs;
  readonly terms: PrintedTerms | null;
  readonly files: readonly PaperFile[];
  readonly ways: PrintedWays;
  readonly logoId: string | null;
  readonly accent: string;
  /** 1 as first sent; changed afterwards, the next. */
  readonly version: number;
  readonly changedOn: CalendarDate | null;
  /** The document is a PDF made elsewhere, under this file's id. */
  readonly elsewhere: string | null;
};

/** What was counted and what it came to, of an invoice or of an order. */
export type PrintedSums = Pick<
  PrintedInvoice,
  | 'currency'
  | 'locale'
  | 'pricesIncludeTax'
  | 'lines'
  | 'subtotal'
  | 'lineDiscounts'
  | 'discount'
  | 'discountText'
  | 'discountLines'
  | 'taxes'
  | 'taxTotal'
  | 'total'
  | 'delivery'
  | 'fees'
  | 'flatTaxes'
  | 'exempt'
>;

const ADDED = {
  title: '',
  serviceFrom: '',
  serviceTo: '',
  delivery: null,
  fees: [],
  flatTaxes: [],
  exempt: '',
  exemptAs: 'exempt',
  terms: null,
  files: [],
  ways: { card: true, transfer: null, parts: false, firstMinor: 0, tip: null },
  logoId: null,
  accent: '#6B2451',
  version: 1,
  changedOn: null,
  elsewhere: null,
} satisfies Partial<PrintedInvoice>;

/** A kept record whole: what did not exist when it was printed is as it was then. */
export const completePrinted = (
  kept: Omit<PrintedInvoice, keyof typeof ADDED> & Partial<PrintedInvoice>,
): PrintedInvoice => ({ ...ADDED, ...kept });

/** What stands at the head of a printed invoice beside what is on the paper. */
export type PrintedHeading = {
  readonly number: string;
  readonly locale: string;
  readonly issuedOn: CalendarDate;
  readonly seller: Seller;
  readonly payer: Payer;
  readonly terms: PrintedTerms | null;
  readonly bank: BusinessBank;
  readonly logoId: string | null;
  readonly accent: string;
};

/** The item and the option that a line sells, as a printed line has them. */
export const soldBy = ({
  itemId,
  optionId,
}: {
  readonly itemId?: string | null | undefined;
  readonly optionId?: string | null | undefined;
}): Pick<PrintedLine, 'itemId' | 'optionId'> => ({
  ...(itemId ? { itemId } : {}),
  ...(itemId && optionId ? { optionId } : {}),
});

const percentText = (discount: unknown): string =>
  typeof discount === 'object' && discount !== null && 'percent' in discount ? `${String(discount.percent)} %` : '';

/** The taxes that delivery carries: those it names, else the ones on delivery that a line names (`calculation.md` 4). */
export function deliveryTaxes(document: TallyDocument): string[] {
  if (document.exempt !== undefined || !document.delivery) return [];
  if (document.delivery.taxes) return [...document.delivery.taxes];
  const named = new Set(document.lines.flatMap((line) => line.taxes ?? []));
  return document.taxes.filter((tax) => tax.onDelivery && named.has(tax.id)).map((tax) => tax.id);
}

/** Sets a worked-out paper as the customer's copy. @param heading its number as given at sending, or a placeholder */
export function printedInvoice(paper: Paper, reading: PaperReading, heading: PrintedHeading): PrintedInvoice {
  const { document, tally } = reading;
  const names = new Map(document.taxes.map((tax) => [tax.id, tax.name]));
  const exempt = document.exempt !== undefined;
  const { bank, ...head } = heading;
  return {
    ...ADDED,
    ...head,
    currency: document.currency,
    dueOn: dueDate(paper.due, heading.issuedOn) ?? heading.issuedOn,
    dueOnReceipt: paper.due.kind === 'receipt',
    reference: paper.reference.trim(),
    note: paper.note.trim(),
    title: paper.title.trim(),
    serviceFrom: isCalendarDate(paper.serviceFrom) ? paper.serviceFrom : '',
    serviceTo: isCalendarDate(paper.serviceTo) && paper.serviceTo !== paper.serviceFrom ? paper.serviceTo : '',
    pricesIncludeTax: document.pricesIncludeTax,
    lines: reading.counted.map((line, at) => {
      const read = document.lines[at];
      const worked = tally.lines[at];
      const taxIds = exempt ? [] : (read?.taxes ?? []);
      return {
        what: line.what.trim(),
        unit: line.unit,
        quantity: read?.quantity ?? '',
        unitPrice: read?.unitPrice ?? '',
        gross: jsonMinor(worked?.gross ?? 0n),
        discount: jsonMinor(worked?.discount ?? 0n),
        discountText: percentText(read?.discount),
        net: jsonMinor(worked?.net ?? 0n),
        taxes: taxIds.map((id) => names.get(id) ?? ''),
        taxIds,
        ...(line.note?.trim() ? { note: line.note.trim() } : {}),
        ...(line.on && isCalendarDate(line.on) ? { on: line.on } : {}),
        ...(line.code?.trim() ? { code: line.code.trim() } : {}),
        ...(line.handed ? { handed: line.handed } : {}),
        ...soldBy(line),
      };
    }),
    subtotal: jsonMinor(tally.subtotal),
    lineDiscounts: jsonMinor(tally.lineDiscounts),
    discount: jsonMinor(tally.documentDiscount),
    discountText: percentText(document.discount),
    ...(document.discount?.lines ? { discountLines: document.discount.lines } : {}),
    delivery:
      document.delivery && document.delivery.amount > 0n
        ? { amount: jsonMinor(document.delivery.amount), taxIds: deliveryTaxes(document) }
        : null,
    fees: (document.fees ?? []).flatMap((fee, at) =>
      fee.amount > 0n
        ? [
            {
              name: paper.fees[at]?.name.trim() ?? '',
              amount: jsonMinor(fee.amount),
              taxIds: exempt ? [] : [...(fee.taxes ?? [])],
            },
          ]
        : [],
    ),
    flatTaxes: tally.flatTaxes.map((tax) => ({ name: tax.name, amount: jsonMinor(tax.amount) })),
    exempt: document.exempt ?? '',
    exemptAs: paper.exemptAs,
    taxes: tally.taxes.map((tax) => ({
      id: tax.id,
      name: names.get(tax.id) ?? '',
      rate: document.taxes.find(({ id }) => id === tax.id)?.rate ?? '0',
      base: jsonMinor(tax.base),
      amount: jsonMinor(tax.amount),
    })),
    taxTotal: jsonMinor(tally.taxTotal),
    total: jsonMinor(tally.total),
    files: paper.files,
    ways: {
      card: paper.ways.card,
      ...(paper.ways.debit ? { debit: true } : {}),
      transfer: paper.ways.transfer ? bankFor(bank, document.currency) : null,
      parts: paper.ways.parts,
      firstMinor: paper.ways.parts ? jsonMinor(firstPaymentMinor(paper, tally.total, document.currency) ?? 0n) : 0,
      tip: paper.ways.tip,
    },
    elsewhere: paper.elsewhere?.fileId ?? null,
  };
}
