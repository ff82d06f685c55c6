import type { RefusalReason } from '../payment/outcome';
import type { PayeeAccount } from './account';

/** What else happens once the money is back. Plain JSON, kept with the refund. */
export type Aside = {
  /** Goods that go back to the stock: of which line (from 0) how much. */
  readonly toStock?: readonly { readonly index: number; readonly quantity: string }[];
  /** The plan whose charge it was goes no further. */
  readonly endPlan?: boolean;
  /** Where a transfer goes; without it, the business sees to it by itself. */
  readonly account?: PayeeAccount;
  /** Why the payer's bank took a debit back. */
  readonly why?: RefusalReason;
  /** The payer is told by mail. */
  readonly tell?: boolean;
};
