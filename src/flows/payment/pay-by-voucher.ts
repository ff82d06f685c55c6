import { smallestPayment } from '@/core/business/business';
import { cardsOpen } from '@/core/business/opening';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { evened, payable } from '@/core/payment/part-payment';
import { voucherEnd, voucherPart } from '@/core/voucher/voucher';
import { businessById } from '@/db/businesses';
import { type Invoice, invoiceById, lockedInvoice } from '@/db/invoices';
import { countAttempt } from '@/db/limits';
import { heldByPending, paymentByAttempt } from '@/db/payments';
import type { Db } from '@/db/pool';
import { hasVouchers } from '@/db/vouchers';
import { INVOICE_LINK } from '@/flows/door/links';
import { byLink, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { requireConsent } from '@/flows/invoice/consent';
import { sent } from '@/flows/invoice/sent-invoice';
import { lockedVoucher, spendVoucher, typedVoucher } from '@/flows/voucher/spend-voucher';
import { perHour } from './attempt-limits';
import { receiveNow } from './receive-payment';

/** What a voucher would pay of an invoice: its worth now, how much of it, and what is still due then; minor units. */
export type VoucherOffer = { readonly worthMinor: number; readonly paysMinor: number; readonly leftMinor: number };

async function dueOf(db: Db, invoice: Invoice) {
  const business = await businessById(db);
  const { due } = payable({
    ...evened({ total: invoice.totalMinor, paid: invoice.paidMinor, refunded: invoice.refundedMinor }),
    credited: invoice.creditedMinor,
    parts: true,
    smallest: 1n,
  });
  return {
    due: due - (await heldByPending(db, invoice.id)),
    smallest: smallestPayment(business, invoice.currency),
    to: { currency: invoice.currency, today: dateInZone(db.now, business.zone) },
  };
}

async function offerOf(db: Db, invoiceId: string, code: string): Promise<VoucherOffer> {
  const invoice = sent(found(await invoiceById(db, invoiceId)));
  const { due, smallest, to } = await dueOf(db, invoice);
  if (due <= 0n) throw new Refusal('already-paid');
  const typed = await typedVoucher(db, code, to);
  if (!typed?.voucher || typed.trouble) throw new Refusal(typed?.trouble ?? 'voucher-unknown');
  const pays = voucherPart(typed.voucher.availableMinor, due, smallest);
  if (pays === 0n) throw new Refusal('voucher-used-up');
  return {
    worthMinor: jsonMinor(typed.voucher.availableMinor),
    paysMinor: jsonMinor(pays),
    leftMinor: jsonMinor(due - pays),
  };
}

type Spending = {
  readonly code: string;
  /** What whoever presses saw that the voucher pays, in minor units. */
  readonly paysMinor: bigint;
  readonly requestKey: string;
  readonly channel: 'invoice' | 'desk';
};

/** Pays an invoice from a voucher, once a key, as far as the voucher and the invoice reach. */
async function spend(
  tx: Writing,
  invoiceId: string,
  { code, paysMinor, requestKey, channel }: Spending,
): Promise<void> {
  const invoice = sent(found(await lockedInvoice(tx, invoiceId)));
  if (await paymentByAttempt(tx, invoiceId, requestKey)) return;
  if ((await heldByPending(tx, invoiceId)) > 0n) throw new Refusal('payment-under-way');
  const { due, smallest, to } = await dueOf(tx, invoice);
  if (due <= 0n) throw new Refusal('already-paid');
  const voucher = await lockedVoucher(tx, code, to);
  if (voucherPart(voucher.availableMinor, due, smallest) !== paysMinor || paysMinor === 0n)
    throw new Refusal('amount-changed');
  await receiveNow(tx, invoiceId, {
    amountMinor: paysMinor,
    method: 'voucher',
    reference: voucherEnd(voucher.code),
    receivedOn: '',
    requestKey,
    voucherId: voucher.id,
    channel,
  });
  const payment = found(await paymentByAttempt(tx, invoiceId, requestKey));
  await spendVoucher(tx, voucher.id, { minor: paysMinor, paymentId: payment.id, byName: tx.name });
}

/** What the payer of an invoice is asked for at all (a card or a bank account by the processor, a voucher), and what their statement will say. */
export const waysOpen = byLink(INVOICE_LINK).read(
  async (db): Promise<{ readonly processor: boolean; readonly voucher: boolean; readonly statementName: string }> => {
    const business = await businessById(db);
    return {
      processor: cardsOpen(business),
      voucher: await hasVouchers(db),
      statementName: business.statementName,
    };
  },
);

/**
 * What a voucher would pay of a linked invoice. Guessing is slow: so many codes an hour from one address.
 *
 * @throws Refusal `voucher-…`, `already-paid`, `too-many-attempts`
 */
export const voucherForInvoice = byLink(INVOICE_LINK).run(
  async (ctx, invoiceId: string, code: string, address: string): Promise<VoucherOffer> => {
    if ((await countAttempt(perHour('voucher-address', 30), address)) > 0) throw new Refusal('too-many-attempts');
    return ctx.read((db) => offerOf(db, invoiceId, code));
  },
);

/** Pays a linked invoice from a voucher; the same press twice pays once. @throws Refusal the same, `amount-changed`, `payment-under-way`, `accept-first`, `approve-first` */
export const payByVoucher = byLink(INVOICE_LINK).run(
  async (
    ctx,
    invoiceId: string,
    asked: Omit<Spending, 'channel'> & { readonly acceptsTerms: boolean },
    address: string,
  ): Promise<void> => {
    if ((await countAttempt(perHour('voucher-address', 30), address)) > 0) throw new Refusal('too-many-attempts');
    await ctx.turn(async (tx) => {
      const invoice = found(await lockedInvoice(tx, invoiceId));
      if (!(await paymentByAttempt(tx, invoiceId, asked.requestKey)))
        await requireConsent(tx, invoice, asked.acceptsTerms);
      await spend(tx, invoiceId, { ...asked, channel: 'invoice' });
    });
  },
);

/** What a voucher that somebody names at the desk would pay. @throws Refusal `voucher-…`, `already-paid` */
export const voucherAtDesk = desk('take').read(
  (db, invoiceId: string, code: string): Promise<VoucherOffer> => offerOf(db, invoiceId, code),
);

/** Pays an invoice at the desk from a voucher. @throws Refusal the same, `amount-changed`, `payment-under-way` */
export const payByVoucherAtDesk = desk('take').turn(
  (tx, invoiceId: string, asked: Omit<Spending, 'channel'>): Promise<void> =>
    spend(tx, invoiceId, { ...asked, channel: 'desk' }),
);
