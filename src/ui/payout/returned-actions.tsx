'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { AskForAccount } from './ask-for-account';

/** What can be done about a payout that came back. */
export function ReturnedActions({
  payoutId,
  partnerId,
  partner,
  sum,
  hasAccount,
}: {
  payoutId: string;
  partnerId: string | null;
  partner: string;
  sum: string;
  hasAccount: boolean;
}) {
  const { busy, press, pressed } = usePress();
  const [asking, setAsking] = useState(false);
  const path = `/api/payouts/${payoutId}`;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
      {hasAccount ? (
        <Button look="go" busy={busy} onClick={() => void pressed(`${path}/again`, {}, 'It is on its way again')}>
          Send it again
        </Button>
      ) : null}
      {partnerId && !hasAccount ? <AskForAccount partnerId={partnerId} partner={partner} /> : null}
      <Link className="link" href={'/money/payouts/accounts' as Route}>
        {partnerId ? 'Type their account in' : 'Give another account'}
      </Link>
      {partnerId ? (
        <Button look="link" opens onClick={() => setAsking(true)}>
          I paid them by hand
        </Button>
      ) : null}
      <FormDialog
        open={asking}
        title="Paid by hand"
        about={`${partner} has got ${sum} from you. What the processor holds of it goes to your own account with your next payout.`}
        action={`${sum} is paid`}
        busy={busy}
        onClose={() => setAsking(false)}
        onSure={async () => {
          const answer = await press(`${path}/by-hand`, {}, 'Noted: your next payout is that much more');
          if (answer.ok) setAsking(false);
          return troubleOf(answer);
        }}
      >
        {null}
      </FormDialog>
    </div>
  );
}
