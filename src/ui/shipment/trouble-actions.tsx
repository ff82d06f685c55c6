'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import type { Look } from '@/core/parcel/shipment';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/form-dialog';
import { MoneyField } from '../kit/money-field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

type Deed = 'send-again' | 'take-into-stock' | 'leave';

const SENDS_AGAIN: readonly Look[] = ['lost', 'damaged', 'late', 'returned'];

const DEEDS: Readonly<Record<Deed, { title: string; action: string; done: string; about: (look: Look) => string }>> = {
  'send-again': {
    title: 'Send it again',
    action: 'Send again',
    done: 'It waits under To pack',
    about: (look) =>
      look === 'returned'
        ? 'What came back is packed anew, under To pack. The label is bought and counted like any other.'
        : 'The same goods are packed anew, under To pack, and another of each is taken from the stock. The label is bought and counted like any other.',
  },
  'take-into-stock': {
    title: 'Take it back into stock',
    action: 'Take back',
    done: 'What was in it lies in stock again',
    about: () =>
      'What was in it can be sold again, and is not sent any more. Give the money back afterwards: the goods are not counted once more.',
  },
  leave: {
    title: 'Leave it at that',
    action: 'Leave it',
    done: 'Nothing more is done about it',
    about: () => 'It stands no more among what needs a look. What the carrier says of it is written down all the same.',
  },
};

/** What can be done about a shipment that needs a look. */
export function TroubleActions({
  id,
  look,
  claimMost,
  currency,
  paymentId,
  may,
}: {
  id: string;
  /** Why it needs a look; null where something was done about it already. */
  look: Look | null;
  /** The most that the carrier can be asked for, in minor units; null where it cannot, or was already. */
  claimMost: number | null;
  currency: string;
  paymentId: string | null;
  may: { readonly pack: boolean; readonly claim: boolean; readonly giveBack: boolean };
}) {
  const digits = minorDigits(currency);
  const [open, setOpen] = useState<Deed | 'claim' | null>(null);
  const [amount, setAmount] = useState(claimMost === null ? '' : decimalText(BigInt(claimMost), digits));
  const { busy, press } = usePress();
  const deed = open && open !== 'claim' ? DEEDS[open] : null;
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
      {may.pack && look && SENDS_AGAIN.includes(look) ? (
        <Button onClick={() => setOpen('send-again')}>Send again</Button>
      ) : null}
      {may.pack && look === 'returned' ? (
        <Button onClick={() => setOpen('take-into-stock')}>Back into stock</Button>
      ) : null}
      {may.claim && claimMost !== null ? (
        <Button onClick={() => setOpen('claim')}>Ask the carrier to pay</Button>
      ) : null}
      {look && may.giveBack && paymentId ? (
        <Link className="link" href={`/money/payments/${paymentId}` as Route}>
          Give money back
        </Link>
      ) : null}
      {may.pack && look ? (
        <Button look="link" onClick={() => setOpen('leave')}>
          Leave it at that
        </Button>
      ) : null}
      {deed && look && open && open !== 'claim' ? (
        <FormDialog
          title={deed.title}
          about={deed.about(look)}
          action={deed.action}
          busy={busy}
          onClose={() => setOpen(null)}
          onSure={async () => {
            const answer = await press(`/api/parcels/${id}/deed`, { deed: open }, deed.done);
            if (answer.ok) setOpen(null);
            return troubleOf(answer);
          }}
        >
          {null}
        </FormDialog>
      ) : null}
      {open === 'claim' && claimMost !== null ? (
        <FormDialog
          title="Ask the carrier to pay"
          about="It pays what was insured; where nothing was, or it is only late, the postage. Its answer takes some days, and the money comes onto the balance."
          action="Ask for it"
          busy={busy}
          onClose={() => setOpen(null)}
          onSure={async () => {
            const minor = typedMinor(amount, digits);
            if (minor === null || minor <= 0n) return 'Write the sum as a number, such as 40.';
            if (minor > BigInt(claimMost)) return `At most ${decimalText(BigInt(claimMost), digits)} can be asked.`;
            const answer = await press(`/api/parcels/${id}/claim`, { minor: Number(minor) }, 'The carrier is asked');
            if (answer.ok) setOpen(null);
            return troubleOf(answer);
          }}
        >
          <MoneyField
            label="How much"
            currency={currency}
            value={amount}
            onChange={(event) => setAmount(event.target.value)}
          />
        </FormDialog>
      ) : null}
    </div>
  );
}
