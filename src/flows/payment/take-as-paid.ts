import type { ReceivedBy } from '@/core/ledger/movements';
import { chargeById } from '@/db/charges';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { recordReceived } from '@/flows/payment/receive-payment';
import { billCharge } from '@/flows/plan/bill-charge';

/** Takes a charge as paid in cash or by transfer: received on its invoice, with a receipt. @throws Refusal `charge-settled`, `no-card` */
export const takeAsPaid = desk('take').run(
  async (ctx, chargeId: string, by: ReceivedBy, reference: string): Promise<void> => {
    const charge = found(await ctx.read((db) => chargeById(db, chargeId)));
    if (charge.state !== 'refused' && charge.state !== 'billed' && charge.state !== 'upcoming')
      throw new Refusal('charge-settled');
    const invoiceId = charge.invoiceId ?? (await billCharge(ctx, chargeId));
    await recordReceived(ctx.actor, invoiceId, {
      requestKey: `charge-received:${chargeId}`,
      amountMinor: charge.amountMinor,
      method: by,
      reference,
      receivedOn: '',
    });
  },
);
