/** What of the demo's payments went back: lines, cash, a sum to an account; and what was paid too much. */
import { randomUUID } from 'node:crypto';
import type { Actor } from '@/flows/door/rights';
import { invoiceSheet } from '@/flows/invoice/invoice-sheet';
import { recordReceived } from '@/flows/payment/receive-payment';
import type { RefundAsk } from '@/flows/payment/refund-payment';
import { refundPayment } from '@/flows/payment/refund-payment';

type Sent = { readonly customer: string; readonly job: number; readonly due: number };

/** What it needs of the play: who is at the desk, and how an invoice is sent. */
export type RefundStage = { readonly actor: Actor; readonly send: (plan: Sent) => Promise<string> };

type Played = [daysAgo: number, hour: number, work: () => Promise<void>];

const back = (wish: RefundAsk['wish'], reason: string, more: Partial<RefundAsk> = {}): RefundAsk => ({
  wish,
  method: 'card',
  reference: '',
  owedAgain: false,
  reason,
  aside: {},
  requestKey: randomUUID(),
  ...more,
});

export function refundPlans({ actor, send }: RefundStage): Played[] {
  const received = async (id: string, method: 'cash' | 'cheque' | 'transfer', over = 0n, reference = '') => {
    const { invoice } = await invoiceSheet(actor, id);
    await recordReceived(actor, id, {
      amountMinor: invoice.dueMinor + over,
      method,
      reference,
      receivedOn: '',
      requestKey: randomUUID(),
      more: over > 0n,
    });
  };
  const paymentOf = async (id: string) => (await invoiceSheet(actor, id)).payments[0]?.id ?? '';
  let first = '';
  let second = '';
  return [
    [
      11,
      10,
      async () => {
        first = await send({ customer: 'Hedda Marchbanks', job: 0, due: 0 });
        await received(first, 'cash');
      },
    ],
    [
      7,
      10,
      async () => {
        const step = { by: 'lines', lines: [{ index: 0, quantity: '1' }], tip: false } as const;
        const ask = back(step, 'It took an hour less than was billed', { method: 'cash', aside: { tell: false } });
        await refundPayment(actor, await paymentOf(first), ask);
      },
    ],
    [
      6,
      9,
      async () => {
        second = await send({ customer: 'Lambert Oyelaran', job: 6, due: 14 });
        // A round sum, more than was asked for: some of it goes back to the account, some stays for the next invoice.
        await received(second, 'transfer', 5000n, 'statement 46');
      },
    ],
    [
      2,
      10,
      async () => {
        const account = { holder: 'Lambert Oyelaran', iban: 'DE02120300000000202051' };
        const ask = back({ by: 'sum', amountMinor: 2000n }, 'Paid too much', {
          method: 'transfer',
          aside: { account },
        });
        await refundPayment(actor, await paymentOf(second), ask);
      },
    ],
    [
      3,
      11,
      async () => {
        const id = await send({ customer: 'Kester Loveday', job: 5, due: 14 });
        await received(id, 'cheque', 0n, '0311');
      },
    ],
  ];
}
