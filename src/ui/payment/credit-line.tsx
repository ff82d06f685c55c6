'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';

/** The customer has money to their credit elsewhere: it can pay this invoice at once. @param credit how much, in words */
export function CreditLine({ invoiceId, credit, mayUse }: { invoiceId: string; credit: string; mayUse: boolean }) {
  const { busy, pressed } = usePress({ keyed: true });
  return (
    <p className="mx-[26px] mt-2 flex flex-wrap items-center gap-3.5 px-3.5">
      <span>
        The customer has <b className="private font-semibold">{credit}</b> to their credit.
      </span>
      {mayUse ? (
        <Button
          size="low"
          busy={busy}
          onClick={() =>
            void pressed(`/api/invoices/${invoiceId}/credit-used`, {}, 'The credit is used for this invoice')
          }
        >
          Use the credit
        </Button>
      ) : null}
    </p>
  );
}
