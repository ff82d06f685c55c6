import type { PrintedOrder } from './order';

/** One thing that whoever packs or prepares an order has to know; `fileId` where the answer is a file. */
export type PackingLine = { readonly label: string; readonly text: string; readonly fileId?: string };

/**
 * All that packing needs of an order, as it is read at the desk and in the notice of the payment: to whom and where, how they are
 * reached, what they wrote and what they answered. What was not asked or not said is left out.
 */
export function packingOf(
  order: Pick<PrintedOrder, 'payer' | 'deliveryTo' | 'phone' | 'message' | 'answers'>,
): PackingLine[] {
  const { payer, deliveryTo, phone, message, answers } = order;
  const address = payer.address.join(', ');
  const delivered = deliveryTo.join(', ');
  const lines: readonly PackingLine[] = [
    { label: 'Deliver to', text: delivered && [payer.name, delivered].filter(Boolean).join(', ') },
    { label: delivered ? 'Bill to' : 'Address', text: address === delivered ? '' : address },
    { label: 'E-mail', text: payer.email },
    { label: 'Phone', text: phone },
    { label: 'Message', text: message },
    ...answers.map(({ label, text, fileId }) => ({ label, text, ...(fileId ? { fileId } : {}) })),
  ];
  return lines.filter(({ text }) => text.trim() !== '');
}
