import { receiptUnder } from '@/core/payment/receipt';
import { announce } from '@/db/jobs';
import { orderById } from '@/db/orders';
import { paymentById } from '@/db/payments';
import type { Actor } from '@/db/people';
import { receiptOfPayment, updateReceipt } from '@/db/receipts';
import { inBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { queueReceipt } from './record-order';

/**
 * Sends the receipt of an order: by hand for the first time, or again, also to another address.
 *
 * @param reference of the business's own, printed on the receipt from now on
 * @throws Refusal `not-found`
 */
export async function sendReceiptAgain(
  actor: Actor,
  paymentId: string,
  to: string,
  reference: string,
  requestKey: string,
): Promise<void> {
  requireRight(actor, 'ask');
  const { businessId } = actor;
  const now = await services().clock.now();
  await inBusiness(businessId, async (tx) => {
    const payment = found(await paymentById(tx, businessId, paymentId));
    const order = found(await orderById(tx, businessId, found(payment.orderId)));
    const receipt = found(await receiptOfPayment(tx, businessId, paymentId));
    const printed = receiptUnder(receipt.printed, reference);
    if (printed !== receipt.printed) await updateReceipt(tx, businessId, receipt.id, printed);
    await queueReceipt(tx, businessId, order, paymentId, `receipt:${paymentId}:${requestKey}`, now, to);
    await announce(tx, businessId);
  });
}
