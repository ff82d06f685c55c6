import { jsonPayout } from '@/app/(desk)/money/payouts/json-payout';
import { desk } from '@/app/answer';
import { payoutPage } from '@/flows/payout/payout-list';
import { PayoutPageInput } from '@/input/payout-input';

export const GET = desk(PayoutPageInput, async (actor, { input }) => {
  const { rows, next, business } = await payoutPage(actor, Number(input.key));
  return {
    rows: rows.map((row) => jsonPayout(row, business)),
    next: next === null ? null : { key: String(next), id: String(next) },
  };
});
