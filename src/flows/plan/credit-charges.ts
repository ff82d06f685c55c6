import { leastOf } from '@/core/money/money';
import type { Charge } from '@/core/plan/charge';
import { invoiceById } from '@/db/invoices';
import type { Writing } from '@/flows/door/operation';
import { creditAmount } from '@/flows/invoice/credit-invoice';

/** Takes a sum off what an invoice still asks for, by a credit note that its customer gets. @param key makes it one credit note */
async function creditDue(
  tx: Writing,
  invoiceId: string | null,
  { mostMinor, reason, key }: { readonly mostMinor: bigint | null; readonly reason: string; readonly key: string },
): Promise<void> {
  const invoice = invoiceId ? await invoiceById(tx, invoiceId) : null;
  if (invoice?.stage !== 'sent') return;
  const amountMinor = mostMinor === null ? invoice.dueMinor : leastOf(mostMinor, invoice.dueMinor);
  if (amountMinor > 0n) await creditAmount(tx, invoice.id, { amountMinor, reason, tell: true, requestKey: key });
}

/** Charges that are given up leave what is owed. @throws Refusal `payment-under-way` */
export async function creditCharges(tx: Writing, charges: readonly Charge[], reason: string): Promise<void> {
  for (const { id, invoiceId, amountMinor } of charges)
    await creditDue(tx, invoiceId, { mostMinor: amountMinor, reason, key: `charge:${id}` });
}

/** All that is still asked for of a balance in parts is given up with its plan. @throws Refusal `payment-under-way` */
export const creditRest = (
  tx: Writing,
  plan: { readonly id: string; readonly invoiceId: string | null },
  reason: string,
) => creditDue(tx, plan.invoiceId, { mostMinor: null, reason, key: `plan:${plan.id}` });
