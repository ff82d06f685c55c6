/** The holder's part in a dispute, and the bank's, at the stand-in processor. */
import { asSuperuser } from './database';
import type { Workshop } from './workshop';

const press = async (
  { standIns }: Pick<Workshop, 'standIns'>,
  path: string,
  form: Record<string, string>,
): Promise<boolean> => {
  const body = new URLSearchParams(form);
  const { status } = await fetch(`${standIns}/cards/disputes${path}`, { method: 'POST', body, redirect: 'manual' });
  return status === 303;
};

/** A card's holder asks their bank for a payment back; false where that cannot be. */
export async function disputePayment(
  workshop: Pick<Workshop, 'standIns' | 'admin'>,
  paymentId: string,
  reason = 'not-recognised',
): Promise<boolean> {
  const [row] = await asSuperuser<{ sale: string }>(
    workshop.admin,
    'select sale_id as sale from payments where id = $1',
    [paymentId],
  );
  return press(workshop, '', { sale: row?.sale ?? '', reason });
}

/** The bank decides a dispute now; false where it has already. */
export const decideDispute = (workshop: Pick<Workshop, 'standIns'>, key: string, won: boolean): Promise<boolean> =>
  press(workshop, `/${key}`, { won: won ? 'yes' : 'no' });
