import { type Business, homePlace, sellerOf } from '@/core/business/business';
import { billingLines, type Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { asFront, type FrontChoice } from '@/core/front/front';
import { issueDate } from '@/core/invoice/due';
import { counterKey, numberText, PLAIN_SERIES, seriesFor } from '@/core/invoice/numbering';
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
  front: FrontChoice,
): PaperSetting => ({
  taxes,
  currency: customer?.currency || business.currency,
  pricesIncludeTax: business.pricesIncludeTax,
  home: homePlace(asFront(business, front)),
  customer,
});

/** The same, with the business's taxes as they are now. */
export const paperSetting = async (
  db: Db,
  business: Business,
  customer: Customer | null,
  front: FrontChoice,
): Promise<PaperSetting> => settingFor(business, await taxesOf(db), customer, front);

/** The paper worked out as the business and the customer stand now. */
export const readingOf = async (
  db: Db,
  business: Business,
  customer: Customer | null,
  paper: Paper,
): Promise<PaperReading> => readPaper(paper, await paperSetting(db, business, customer, paper));

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
  localeFor(customer?.language ?? '', business.paperLocale, customer?.billing.country ?? '');

/** The number that a paper would get now: its own where one is typed, else the next of the series. */
export async function numberAhead(db: Db, business: Business, paper: Paper, today: CalendarDate): Promise<string> {
  if (paper.number.trim()) return paper.number.trim();
  const series = seriesFor(await numberSeries(db), business, paper);
  const on = issueDate(paper, today);
  return numberText(series, await nextNumber(db, counterKey(series, on)), on);
}

/** The number that the paper would get in each series, were it chosen, by the series' name. */
export async function numbersAhead(
  db: Db,
  business: Business,
  paper: Paper,
  today: CalendarDate,
): Promise<Readonly<Record<string, string>>> {
  const numbers: Record<string, string> = {};
  const all = await numberSeries(db);
  for (const { name } of all.length > 0 ? all : [PLAIN_SERIES])
    numbers[name] = await numberAhead(db, business, { ...paper, number: '', series: name }, today);
  return numbers;
}

/** The head of the printed record, under the paper's front. @param terms those that the paper names */
export function headingFor(
  own: Business,
  customer: Customer | null,
  paper: Paper,
  { terms, today }: { readonly terms: Terms | null; readonly today: CalendarDate },
): Omit<PrintedHeading, 'number'> {
  const business = asFront(own, paper);
  return {
    locale: localeOf(business, customer),
    issuedOn: issueDate(paper, today),
    seller: sellerOf(business),
    payer: customer ? payerOf(customer, business) : { name: 'Nobody chosen yet', address: [], email: '' },
    terms: terms && { versionId: terms.versionId, name: terms.name, version: terms.version, text: terms.text },
    bank: business.bank,
    logoId: business.logoId,
    accent: business.accent,
  };
}

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
