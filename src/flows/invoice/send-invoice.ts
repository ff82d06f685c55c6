import { type SendingWay, type SendWith, sendBy } from '@/core/invoice/send-with';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { invoiceById, lockedInvoice } from '@/db/invoices';
import { addToTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { queueInvoice } from './invoice-message';
import { issueDraft } from './issue-invoices';
import { sent } from './sent-invoice';

/**
 * Makes a draft final: gives it the next number (or the one typed), books it, and queues its message. Returns the number.
 *
 * An invoice that is already sent answers its number again: the same click twice is one sending.
 *
 * @param revision what the person saw; a draft that changed since is not sent
 * @throws Refusal `paper-not-ready` with the places, `customer-without-email`, `customer-without-phone`, `draft-changed-elsewhere`
 */
export const sendInvoice = desk('ask').turn(
  async (tx, id: string, revision: number, how: SendWith | SendingWay): Promise<string> => {
    const draft = found(await lockedInvoice(tx, id));
    if (draft.stage !== 'draft') return draft.number ?? '';
    if (draft.revision !== revision) throw new Refusal('draft-changed-elsewhere');
    const business = await businessById(tx);
    return issueDraft(tx, business, draft, typeof how === 'string' ? sendBy(how) : how);
  },
);

/**
 * Sends an invoice once more, as it stands.
 *
 * @param requestKey made by the screen for one click, so that the same click twice is one e-mail
 * @throws Refusal `invoice-not-sent`, `customer-without-email`, `already-paid`
 */
export const sendInvoiceAgain = desk('ask').write(
  async (tx, id: string, requestKey: string, how: SendWith = sendBy('mail')): Promise<void> => {
    const invoice = sent(found(await lockedInvoice(tx, id)));
    const printed = found(invoice.printed);
    if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
    const customer = await customerById(tx, invoice.customerId ?? '');
    if (how.way === 'mail' && how.to.length === 0 && !printed.payer.email) throw new Refusal('customer-without-email');
    if ((how.way === 'text' || how.way === 'chat') && !how.phone && !customer?.phone)
      throw new Refusal('customer-without-phone');
    const key = `invoice:${id}:${requestKey}`;
    await queueInvoice(tx, { id, printed }, customer, { how, key });
    const to = how.way === 'mail' ? (how.to[0] ?? printed.payer.email) : how.phone || customer?.phone || '';
    await addToTimeline(tx, id, { kind: 'sent-again', to }, tx.name);
  },
);

/** Sends the e-mail as it would go out now to the person at the desk; no number is given, nothing is booked. */
export const sendTrial = desk('ask').write(async (tx, id: string, requestKey: string, to: string): Promise<void> => {
  found(await invoiceById(tx, id));
  const message = {
    kind: 'trial',
    key: `trial:${id}:${requestKey}`,
    invoiceId: id,
    toName: tx.name,
    toAddress: to,
  } as const;
  await queueMessage(tx, message);
});
