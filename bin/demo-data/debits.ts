/** Bank debits of the demo: one that was paid, one that its payer took back, one under way, and a plan that is charged so. */
import { USUAL_WAYS } from '@/core/paper/paper';

type Debited = {
  readonly customer: string;
  readonly job: number;
  readonly due: number;
  readonly more: { readonly ways: typeof USUAL_WAYS };
};

/** What it needs of the play: an invoice sent and paid from an account, the payer's bank, and the look at what became of debits. */
export type DebitStage = {
  readonly send: (plan: Debited) => Promise<string>;
  readonly pay: (invoiceId: string, account: string) => Promise<void>;
  /** The bank gives back the latest debit that was paid, with an ISO 20022 reason code. */
  readonly giveBack: (code: string) => Promise<void>;
  readonly look: () => Promise<void>;
};

type Played = [daysAgo: number, hour: number, work: () => Promise<void>];

const LOOKED_AT = [36, 30, 20, 10, 6, 5, 1];

export function debitPlans({ send, pay, giveBack, look }: DebitStage): Played[] {
  const ways = { ...USUAL_WAYS, debit: true };
  const sold = (daysAgo: number, customer: string, job: number, account: string): Played => [
    daysAgo,
    10,
    async () => pay(await send({ customer, job, due: 30, more: { ways } }), account),
  ];
  return [
    ...LOOKED_AT.map((daysAgo): Played => [daysAgo, 13, look]),
    sold(26, 'Harrow Street Quartet', 6, 'account-good'),
    sold(16, 'Calder Nwosu', 3, 'account-other'),
    [
      2,
      9,
      async () => {
        await giveBack('MD06');
        await look();
      },
    ],
    sold(1, 'Fenwick Primary School', 0, 'account-good'),
  ];
}
