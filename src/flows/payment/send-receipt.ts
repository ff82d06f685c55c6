import { receiptUnder } from '@/core/receipt/receipt';
import { paymentById } from '@/db/payments';
import { receiptOfPayment, updateReceipt } from '@/db/receipts';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';

/**
 * Sends the receipt of a payment: by hand for the first time, or again, also to another address.
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
    const { invoiceId, orderId, customerId } = found(await paymentById(tx, paymentId));
    const receipt = found(await receiptOfPayment(tx, paymentId));
    const printed = receiptUnder(receipt.printed, reference);
    if (printed !== receipt.printed) await updateReceipt(tx, receipt.id, printed);
    await queueMessage(tx, {
      kind: 'receipt',
      key: `receipt:${paymentId}:${requestKey}`,
      toName: printed.payer.name,
      toAddress: to,
      ...(invoiceId ? { invoiceId } : { orderId: found(orderId) }),
      paymentId,
      customerId,
    });
  },
);
