import { isCalendarDate } from '@/core/dates/calendar-date';
import { monthText } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { afterMonth } from '@/core/payout/paper';
import { partnerById } from '@/db/partners';
import { notice } from '@/documents/mail/letter';
import { partnerLink } from '@/flows/payout/partner-page';
import { partnerFiles } from '@/flows/payout/partner-statements';
import { services } from '@/outside/services';
import type { Subject, Written } from './subject';

/** A payout came back: to every owner. */
export const payoutReturnedMail = async ({ message, business }: Subject): Promise<Written> => ({
  ...notice({
    seller: business,
    subject: message.details.subject ?? 'A payout came back',
    lead: business.name,
    sum: 'A payout came back',
    words: `${message.details.subject ?? ''}. The money lies with the processor. Confirm another account, and it goes out again.`,
    link: `${services().publicUrl}/money/payouts/${message.details.from ?? ''}`,
    open: 'Open the payout',
    foot: 'Sent to every owner by Dahlia.',
  }),
  files: [],
});

/** A partner's month, with its papers. */
export async function partnerStatementMail({ ctx, message, business }: Subject): Promise<Written | null> {
  const { partnerId = '', from = '', to = '' } = message.details;
  const partner = await ctx.read((db) => partnerById(db, partnerId));
  if (!partner || !isCalendarDate(from) || !isCalendarDate(to)) return null;
  const { months, files } = await partnerFiles(ctx, partnerId, from, to);
  const left = months.map((month) => moneyText(money(afterMonth(month), month.currency), business.paperLocale));
  const month = monthText(to.slice(0, 7), business.paperLocale);
  return {
    ...notice({
      seller: business,
      subject: `Your part in ${month}, ${business.name}`,
      lead: `Your part in ${month}`,
      sum: left.join(' + ') || 'Nothing to come',
      words: `${left.length > 0 ? 'That much was still to come to you at the end of the month. ' : ''}What it is made of and what was paid out stands in the papers with this letter, and on your page.`,
      link: partnerLink(business.id, partnerId, ctx.now),
      open: 'Open your page',
      foot: `Answer this letter with any question; it goes to ${business.name}.`,
    }),
    files,
  };
}

/** The link to a partner's own page. */
export async function partnerPageMail({ ctx, message, business }: Subject): Promise<Written | null> {
  const { partnerId = '', text = '' } = message.details;
  const partner = await ctx.read((db) => partnerById(db, partnerId));
  if (!partner) return null;
  return {
    ...notice({
      seller: business,
      subject: text ? `${business.name} needs your bank account` : `Your page with ${business.name}`,
      lead: partner.name,
      sum: text ? 'An account for your part' : 'Your page',
      words:
        text ||
        `Your parts of payments to ${business.name}, what was paid out to you, and the account to which it goes stand on your page.`,
      link: partnerLink(business.id, partnerId, ctx.now),
      open: 'Open your page',
      foot: 'The link is good for forty days. Whoever has it sees this page: keep it to yourself.',
    }),
    files: [],
  };
}
