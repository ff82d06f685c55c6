import { type Business, homePlace, sellerOf } from '@/core/business/business';
import { billingLines, type Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { issueDate } from '@/core/invoice/due';
import { counterKey, type NumberSeries, numberText, PLAIN_SERIES } from '@/core/invoice/numbering';
import { type Payer, type PrintedHeading } from '@/core/invoice/printed';
import { type PaperReading, type PaperSetting, readPaper } from '@/core/invoice/read-paper';
import type { Paper } from '@/core/paper/paper';
import { localeFor } from '@/core/words/words';
import { nextNumber, numberSeries } from '@/db/businesses';
import type { Db } from '@/db/pool';
import { taxesOf } from '@/db/taxes';
import { type Terms, termsById } from '@/db/terms';

/** What a paper of this business to this customer is read against. */
export const settingFor = (
  business: Business,
  taxes: PaperSetting['taxes'],
  customer: Customer | null,
): PaperSetting => ({
  taxes,
  currency: customer?.currency || business.currency,
  pricesIncludeTax: business.pricesIncludeTax,
  home: homePlace(business),
  customer,
});

/** The same, with the business's taxes as they are now. */
export const paperSetting = async (db: Db, business: Business, customer: Customer | null): Promise<PaperSetting> =>
  settingFor(business, await taxesOf(db), customer);

/** The paper worked out as the business and the customer stand now. */
export const readingOf = async (
  db: Db,
  business: Business,
  customer: Customer | null,
  paper: Paper,
): Promise<PaperReading> => readPaper(paper, await paperSetting(db, business, customer));

/** A customer as the documents show them. */
export const payerOf = (customer: Customer, business: Business): Payer => ({
  name: customer.name,
  address: billingLines(customer, business.country, localeOf(business, customer)),
  email: customer.email,
  taxNumber: customer.taxNumber,
  country: customer.billing.country,
  place: customer.billing,
});

/** How a customer's documents write dates and sums. */
export const localeOf = (business: Business, customer: Customer | null): string =>
  localeFor(customer?.language ?? '', business.locale, customer?.billing.country ?? '');

/** The series that numbers a paper: the one it names, else the business's first. */
export const seriesFor = (all: readonly NumberSeries[], paper: Paper): NumberSeries =>
  all.find(({ name }) => name === paper.series) ?? all[0] ?? PLAIN_SERIES;

/** The number that a paper would get now: its own where one is typed, else the next of the series. */
export async function numberAhead(db: Db, paper: Paper, today: CalendarDate): Promise<string> {
  if (paper.number.trim()) return paper.number.trim();
  const series = seriesFor(await numberSeries(db), paper);
  const on = issueDate(paper, today);
  return numberText(series, await nextNumber(db, counterKey(series, on)), on);
}

/** The head of the printed record. @param terms those that the paper names */
export const headingFor = (
  business: Business,
  customer: Customer | null,
  paper: Paper,
  { terms, today }: { readonly terms: Terms | null; readonly today: CalendarDate },
): Omit<PrintedHeading, 'number'> => ({
  locale: localeOf(business, customer),
  issuedOn: issueDate(paper, today),
  seller: sellerOf(business),
  payer: customer ? payerOf(customer, business) : { name: 'Nobody chosen yet', address: [], email: '' },
  terms: terms && { versionId: terms.versionId, name: terms.name, version: terms.version, text: terms.text },
  bank: business.bank,
  logoId: business.logoId,
  accent: business.accent,
});

/** The same, with the terms as they are now. */
export async function headingOf(
  db: Db,
  business: Business,
  customer: Customer | null,
  paper: Paper,
): Promise<Omit<PrintedHeading, 'number'>> {
  const terms = paper.termsId ? await termsById(db, paper.termsId) : null;
  return headingFor(business, customer, paper, { terms, today: dateInZone(db.now, business.zone) });
}
