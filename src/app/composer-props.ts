import { cardsOpen } from '@/core/business/opening';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { houseOf } from '@/core/front/front';
import { mayDo } from '@/core/person/rights';
import { type Actor } from '@/flows/door/rights';
import { composerChoices } from '@/flows/invoice/composer-choices';
import type { InvoiceSheet } from '@/flows/invoice/invoice-sheet';
import type { ComposerProps } from '@/ui/composer/composer-props';
import { shownFirstDay } from './first-day';

/** How the first days stand, without the paper itself: that is what is written on. */
async function firstDaysBeside(actor: Actor, business: { zone: string; deskLocale: string }) {
  const found = await shownFirstDay(actor, business);
  if (!found) return null;
  const { draft: _, ...first } = found;
  return first;
}

/** All that the composer shows of a paper. @param sentVersion the version that is changed, or null for a draft */
export async function composerOf(
  actor: Actor,
  sheet: InvoiceSheet,
  sentVersion: number | null,
): Promise<ComposerProps> {
  const { invoice, business, customer } = sheet;
  const { series, terms, templates, recurring, ownEmail } = await composerChoices(actor, invoice.customerId);
  const { sendAt, printed } = invoice;
  return {
    id: invoice.id,
    // What was fixed at sending is part of the paper that is changed.
    draft: {
      paper: printed
        ? { ...invoice.paper, number: printed.number, issuedOn: printed.issuedOn, currency: printed.currency }
        : invoice.paper,
      revision: invoice.revision,
      by: invoice.keptBy,
    },
    customer,
    taxes: sheet.taxes,
    currency: business.currency,
    locale: business.deskLocale,
    zone: business.zone,
    today: sheet.today,
    nextNumbers: sheet.nextNumbers,
    series,
    terms: terms.map(({ id, name, version }) => ({ id, name, version })),
    templates,
    recurring,
    link: sheet.link,
    pricesIncludeTax: business.pricesIncludeTax,
    house: houseOf(business),
    usualReminders: business.reminders,
    mailTexts: business.mailTexts,
    hasAccount: [business.bank, ...(business.bank.others ?? [])].some(({ account }) => account !== ''),
    smallestPayments: business.smallestPayments,
    ownEmail,
    planned: sendAt
      ? `${shortDate(dateInZone(sendAt, business.zone), business.deskLocale, { weekday: true })}, ${clockTime(sendAt, business.zone)}`
      : '',
    sentVersion,
    mayAsk: mayDo(actor, 'ask'),
    cardsOpen: cardsOpen(business),
    first: sentVersion === null ? await firstDaysBeside(actor, business) : null,
  };
}
