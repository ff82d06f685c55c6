import { randomInt, randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { CODE_LENGTH, CODE_SIGNS, lastDayOf, vouchersOf } from '@/core/voucher/voucher';
import type { Order } from '@/db/orders';
import type { Payment } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { insertVouchers, moveVouchers, type NewVoucher, voucherRule } from '@/db/vouchers';

/** A code that nobody guesses: 79 random bits. */
const newCode = (): string =>
  Array.from({ length: CODE_LENGTH }, () => CODE_SIGNS[randomInt(CODE_SIGNS.length)]).join('');

/**
 * Makes the vouchers that an order bought, once, within the transaction that books it. They go out on the day that the payer chose, to
 * whom they chose, else to the payer with the next look at what is due.
 */
export async function issueVouchers(
  tx: Tx,
  business: Business,
  { id: orderId, printed }: Order,
  payment: Pick<Payment, 'id' | 'currency'>,
): Promise<void> {
  const today = dateInZone(tx.now, business.zone);
  const expiresOn = lastDayOf(today, await voucherRule(tx));
  const { gift, payer } = printed;
  const chosen = gift && isCalendarDate(gift.on) ? gift.on : today;
  const about = {
    orderId,
    paymentId: payment.id,
    currency: payment.currency,
    expiresOn,
    locale: printed.locale,
    title: printed.title,
    toName: gift?.toName.trim() ?? '',
    // Without an address it comes to the payer at once, to be handed over.
    toEmail: gift?.toEmail.trim() || payer.email,
    fromName: gift ? payer.name : '',
    message: gift?.message.trim() ?? '',
    sendOn: (gift?.toEmail.trim() ? chosen : today) as CalendarDate,
  };
  const vouchers = vouchersOf(printed.lines)
    .filter((valueMinor) => valueMinor > 0n)
    .map((valueMinor): NewVoucher => ({ id: randomUUID(), code: newCode(), valueMinor, ...about }));
  await insertVouchers(tx, vouchers);
  await moveVouchers(
    tx,
    vouchers.map(({ id, valueMinor }) => ({ voucherId: id, kind: 'sold', minor: valueMinor, paymentId: payment.id })),
    payer.name,
  );
}
