import { receiptUnder } from '@/core/receipt/receipt';
import { orderById } from '@/db/orders';
import { paymentById } from '@/db/payments';
import { receiptOfPayment, updateReceipt } from '@/db/receipts';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueReceipt } from '@/flows/order/record-order';

/**
 * Sends the receipt of an order: by hand for the first time, or again, also to another address.
 *
 * @param reference of the business's own, printed on the receipt from now on
 * @throws Refusal `not-found`
 */
export const sendReceiptAgain = desk('ask').write(
  async (
    tx,
    paymentId: string,
    { to, reference, requestKey }: { to: string; reference: string; requestKey: string },
  ): Promise<void> => {
    const payment = found(await paymentById(tx, paymentId));
    const order = found(await orderById(tx, found(payment.orderId)));
    const receipt = found(await receiptOfPayment(tx, paymentId));
    const printed = receiptUnder(receipt.printed, reference);
    if (printed !== receipt.printed) await updateReceipt(tx, receipt.id, printed);
    await queueReceipt(tx, order, paymentId, { key: `receipt:${paymentId}:${requestKey}`, toAddress: to });
  },
);
