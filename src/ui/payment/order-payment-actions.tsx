'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { NumberField } from '../kit/number-input';
import { SelectField } from '../kit/select';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';

/** What can be done with the payment of an order: giving back, taking back, the receipt again. Amounts in minor units. */
export function OrderPaymentActions({
  paymentId,
  leftMinor,
  mayGiveBack,
  untouched,
  currency,
  locale,
  email,
  mailed,
  ownReference,
}: {
  paymentId: string;
  /** What has not been given back. */
  leftMinor: number;
  mayGiveBack: boolean;
  /** Whether nothing was given back yet: only then the whole can be voided. */
  untouched: boolean;
  currency: string;
  locale: string;
  email: string;
  mailed: boolean;
  ownReference: string;
}) {
  const router = useRouter();
  const key = useRef('');
  const [shown, setShown] = useState<'' | 'back' | 'receipt'>('');
  const [busy, setBusy] = useState(false);
  const [kind, setKind] = useState<'refund' | 'void'>('refund');
  const [amount, setAmount] = useState('');
  const [reason, setReason] = useState('');
  const [to, setTo] = useState(email);
  const [reference, setReference] = useState(ownReference);
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  const typed = amount.trim() === '' ? BigInt(leftMinor) : typedMinor(amount, minorDigits(currency));

  /** One press, one action: the key is made once and kept until it succeeded. */
  async function press(path: string, body: object, done: string): Promise<string> {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const answer = await send('POST', path, { ...body, requestKey: key.current });
    setBusy(false);
    if (!answer.ok) {
      if (answer.code !== 'unreachable' && answer.code !== 'trouble') key.current = '';
      return troubleOf(answer);
    }
    key.current = '';
    setShown('');
    say(done);
    router.refresh();
    return '';
  }

  return (
    <div className="mt-4 flex flex-wrap gap-5">
      {leftMinor > 0 && mayGiveBack ? (
        <Button look="link" onClick={() => setShown('back')}>
          Refund
        </Button>
      ) : null}
      <Button look="link" onClick={() => setShown('receipt')}>
        {mailed ? 'Send the receipt again' : 'Send the receipt'}
      </Button>
      <FormDialog
        open={shown === 'back'}
        title="Refund"
        about={`${text(leftMinor)} can be refunded. The payer is told by mail.`}
        action={kind === 'void' ? `Void ${text(leftMinor)}` : `Refund ${typed === null ? '…' : text(Number(typed))}`}
        busy={busy}
        danger
        disabled={kind === 'refund' && (typed === null || typed <= 0n || typed > BigInt(leftMinor))}
        onClose={() => setShown('')}
        onSure={() =>
          press(
            `/api/payments/${paymentId}/refund`,
            { kind, amountMinor: kind === 'void' ? 0 : Number(typed ?? 0n), reason },
            kind === 'void' ? 'The payment is voided' : 'The money is on its way back',
          )
        }
      >
        {untouched ? (
          <SelectField label="How" value={kind} onChange={(event) => setKind(event.target.value as 'refund' | 'void')}>
            <option value="refund">Refund: all or a part</option>
            <option value="void">Void: as if it had not been, while it is not settled</option>
          </SelectField>
        ) : null}
        {kind === 'refund' ? (
          <NumberField
            label={`How much, ${currency}`}
            placeholder={text(leftMinor)}
            value={amount}
            error={typed === null || typed > BigInt(leftMinor) ? `At most ${text(leftMinor)}.` : undefined}
            onChange={(event) => setAmount(event.target.value)}
          />
        ) : null}
        <Field label="Why" value={reason} maxLength={300} onChange={(event) => setReason(event.target.value)} />
      </FormDialog>
      <FormDialog
        open={shown === 'receipt'}
        title="Send the receipt"
        about="An e-mail with the receipt as a PDF, in the payer’s language."
        action="Send receipt"
        busy={busy}
        onClose={() => setShown('')}
        onSure={() =>
          press(`/api/payments/${paymentId}/receipt`, { to, reference }, `The receipt is on its way to ${to}`)
        }
      >
        <Field label="To" type="email" value={to} maxLength={200} onChange={(event) => setTo(event.target.value)} />
        <Field
          label="Your own reference"
          hint="Printed on the receipt, if you keep one."
          value={reference}
          maxLength={60}
          onChange={(event) => setReference(event.target.value)}
        />
      </FormDialog>
    </div>
  );
}
