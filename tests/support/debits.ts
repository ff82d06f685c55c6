/** The payer's bank in a bank debit, at the stand-in processor. */
import { asSuperuser } from './database';
import type { Workshop } from './workshop';

/** The payer's bank decides now: pays a debit (without a code), does not, or takes a paid one back; false where it cannot. */
export async function decideDebit(
  workshop: Pick<Workshop, 'standIns' | 'admin'>,
  paymentId: string,
  code = '',
): Promise<boolean> {
  const [row] = await asSuperuser<{ sale: string }>(
    workshop.admin,
    'select sale_id as sale from payments where id = $1',
    [paymentId],
  );
  const body = new URLSearchParams({ sale: row?.sale ?? '', code });
  const { status } = await fetch(`${workshop.standIns}/cards/debits`, { method: 'POST', body, redirect: 'manual' });
  return status === 303;
}
