'use client';
import { useEffect, useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';
import { TickField } from '../kit/check';
import { DateField } from '../kit/date-field';
import { Field, TextField } from '../kit/field';
import { FormDialog, type Told } from '../kit/form-dialog';
import { MoneyField } from '../kit/money-field';
import { SelectField } from '../kit/select';

type Ended<T> = (value: T) => Promise<string>;

type OfMoney = Told & { currency: string; locale: string };

/** A few words to be sent. @param onWords resolves with what went wrong, or an empty text */
export function WordsDialog({
  open,
  label,
  first,
  onWords,
  ...told
}: Told & {
  open: boolean;
  title: string;
  about: string;
  label: string;
  first: string;
  action: string;
  onWords: Ended<string>;
}) {
  const [text, setText] = useState(first);
  useEffect(() => {
    if (open) setText(first);
  }, [open, first]);
  return (
    <FormDialog {...told} open={open} disabled={!text.trim()} onSure={() => onWords(text)}>
      <TextField
        label={label}
        rows={5}
        autoFocus
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
    </FormDialog>
  );
}

/** An amount as it is typed; `minor` is null while it is none or nothing. */
function useAmount(firstMinor: number, { currency }: OfMoney, label: string) {
  const [amount, setAmount] = useState(plainSum(BigInt(firstMinor), currency));
  const field = (
    <MoneyField
      label={label}
      currency={currency}
      value={amount}
      autoFocus
      onChange={(event) => setAmount(event.target.value)}
    />
  );
  return { minor: Number(typedMinor(amount, minorDigits(currency)) ?? 0n) || null, field };
}

const METHODS = [
  ['transfer', 'Bank transfer'],
  ['cash', 'Cash'],
  ['cheque', 'Cheque'],
  ['other', 'Another way'],
] as const;

/** Money that came another way than by card. */
export function ReceivedDialog({
  dueMinor,
  today,
  onReceived,
  ...told
}: OfMoney & {
  dueMinor: number;
  today: string;
  onReceived: Ended<{ amountMinor: number; method: string; reference: string; receivedOn: string; more: boolean }>;
}) {
  const { minor, field } = useAmount(dueMinor, told, 'How much');
  const [more, setMore] = useState(false);
  const [method, setMethod] = useState<string>('transfer');
  const [reference, setReference] = useState('');
  const [receivedOn, setReceivedOn] = useState(today);
  return (
    <FormDialog
      {...told}
      title="Record a payment"
      about="The invoice owes that much less, and the customer gets a receipt."
      action="Record payment"
      onSure={() =>
        minor === null
          ? 'Write how much came in.'
          : onReceived({ amountMinor: minor, method, reference, receivedOn, more })
      }
    >
      {field}
      {minor !== null && minor > dueMinor ? (
        <TickField
          label="It is more than is due: the rest stays to the customer’s credit"
          checked={more}
          onChange={(event) => setMore(event.target.checked)}
        />
      ) : null}
      <SelectField label="How" value={method} onChange={(event) => setMethod(event.target.value)}>
        {METHODS.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </SelectField>
      <DateField label="On which day" value={receivedOn} onDay={(day) => setReceivedOn(day)} />
      <Field
        label="Reference"
        maxLength={120}
        value={reference}
        hint="Such as the number on the cheque or the statement."
        onChange={(event) => setReference(event.target.value)}
      />
    </FormDialog>
  );
}

/** A credit of all or a part. */
export function CreditDialog({
  leftMinor,
  onCredit,
  ...told
}: OfMoney & { leftMinor: number; onCredit: Ended<{ amountMinor: number; reason: string; tell: boolean }> }) {
  const { minor, field } = useAmount(leftMinor, told, 'How much is credited');
  const [reason, setReason] = useState('');
  const [tell, setTell] = useState(true);
  return (
    <FormDialog
      {...told}
      title="Write a credit note"
      about="A document of its own number. The taxes in it are taken back in proportion."
      action="Write credit note"
      disabled={!reason.trim()}
      onSure={() => (minor === null ? 'Write how much is credited.' : onCredit({ amountMinor: minor, reason, tell }))}
    >
      {field}
      <Field label="Why" maxLength={400} value={reason} onChange={(event) => setReason(event.target.value)} />
      <TickField
        label="Send it to the customer by e-mail"
        checked={tell}
        onChange={(event) => setTell(event.target.checked)}
      />
    </FormDialog>
  );
}

/** Cancelling, with the reason that stays on the timeline. */
export function CancelDialog({ onCancel, ...told }: Told & { onCancel: Ended<{ reason: string; tell: boolean }> }) {
  const [reason, setReason] = useState('');
  const [tell, setTell] = useState(true);
  return (
    <FormDialog
      {...told}
      title="Cancel this invoice?"
      about="Its number stays, and nothing is to be paid any more. This cannot be taken back."
      action="Cancel invoice"
      danger
      disabled={!reason.trim()}
      onSure={() => onCancel({ reason, tell })}
    >
      <Field label="Why" maxLength={400} autoFocus value={reason} onChange={(event) => setReason(event.target.value)} />
      <TickField
        label="Tell the customer by e-mail"
        checked={tell}
        onChange={(event) => setTell(event.target.checked)}
      />
    </FormDialog>
  );
}
