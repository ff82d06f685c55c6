import { lookOf, sellerOf } from '@/core/business/business';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { type PartnerMonth, partnerPaper } from '@/core/payout/paper';
import { businessById } from '@/db/businesses';
import { type Partner, partnerById, partnersToState, updateStatementsTo } from '@/db/partners';
import { arrivedPayouts, type PartnerMovement, partnerCurrencies, partnerMovements, partnerOwed } from '@/db/payouts';
import type { Db, Tx } from '@/db/pool';
import { payoutPdf } from '@/documents/pdf/draw';
import type { Context } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { queueMessages } from '@/flows/message/queue-message';
import { partnerCsv } from './partner-file';

/** The month before the one of a day, from its first to its last day. */
function monthBefore(today: CalendarDate): { from: CalendarDate; to: CalendarDate } {
  const to = addDays(`${today.slice(0, 8)}01` as CalendarDate, -1);
  return { from: `${to.slice(0, 8)}01` as CalendarDate, to };
}

/** When a month is over, whoever got a part of something in it is sent their statement, once. */
export async function queuePartnerStatements(tx: Tx, today: CalendarDate): Promise<void> {
  const { from, to } = monthBefore(today);
  const partners = await partnersToState(tx, from, to);
  if (partners.length === 0) return;
  await queueMessages(
    tx,
    partners.map((partner) => ({
      kind: 'partner-statement' as const,
      key: `partner-statement:${partner.id}:${to}`,
      toName: partner.name,
      toAddress: partner.email,
      details: { partnerId: partner.id, from, to },
    })),
  );
  await updateStatementsTo(
    tx,
    partners.map(({ id }) => id),
    to,
  );
}

type Month = PartnerMonth & { readonly movements: readonly PartnerMovement[] };

/** A partner's days from one to another, a statement for each currency in which they were ever given something. */
export async function partnerMonths(
  db: Db,
  partner: Pick<Partner, 'id' | 'name'>,
  from: CalendarDate,
  to: CalendarDate,
): Promise<Month[]> {
  const all = await partnerMovements(db, partner.id, from, to);
  const months: Month[] = [];
  for (const currency of await partnerCurrencies(db, partner.id))
    months.push({
      partner: partner.name,
      currency,
      from,
      to,
      beforeMinor: await partnerOwed(db, partner.id, currency, from),
      // A payout that came back and was paid by hand never arrived: what was owed stays until that.
      movements: all.filter((one) => one.currency === currency && one.kind !== 'came-back'),
      payouts: await arrivedPayouts(db, partner.id, currency, from, to),
    });
  return months;
}

/** A partner's month as it is mailed and fetched: a PDF for each currency, and all movements as CSV. */
export async function partnerFiles(
  ctx: Context,
  partnerId: string,
  from: CalendarDate,
  to: CalendarDate,
): Promise<{ months: Month[]; files: File[] }> {
  const { business, months } = await ctx.read(async (db) => ({
    business: await businessById(db),
    months: await partnerMonths(db, found(await partnerById(db, partnerId)), from, to),
  }));
  const pictures = await picturesOf(ctx, business.logoId);
  const files: File[] = [];
  for (const month of months)
    files.push({
      name: `statement-${to}-${month.currency}.pdf`,
      bytes: await payoutPdf(partnerPaper(month, sellerOf(business), lookOf(business)), pictures),
      type: 'application/pdf',
    });
  const rows = months.flatMap(({ movements }) => movements);
  files.push({
    name: `statement-${to}.csv`,
    bytes: Buffer.from(partnerCsv(rows, business.zone)),
    type: 'text/csv',
  });
  return { months, files };
}
