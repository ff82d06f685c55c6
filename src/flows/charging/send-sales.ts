import { money } from '@/core/money/money';
import type { SaleOutcome } from '@/core/payment/outcome';
import type { Context } from '@/flows/door/operation';
import { saleKey } from '@/flows/payment/take-payment';
import { services } from '@/outside/services';
import type { Sale } from './claim-charges';

/** A sale with what the processor said of it. */
export type Sold = { readonly sale: Sale; readonly outcome: SaleOutcome };

/** Sends one sale to the processor, under its key: however often it is sent, it is made once. */
export async function sendSale(ctx: Context, sale: Sale): Promise<Sold> {
  const { cards, publicUrl } = services();
  const { payment, card, reference } = sale;
  const outcome = await cards.sale({
    key: saleKey(ctx.businessId, payment.id),
    amount: money(payment.amountMinor, payment.currency),
    token: { cardId: card.keptId },
    reference,
    returnUrl: publicUrl,
  });
  return { sale, outcome };
}
