'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { ShownCard } from '@/core/plan/shown-card';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { NumberField } from '../kit/number-input';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { CardChoice, type CardChoiceHandle } from '../plan/card-choice';

type AttemptStatus = { state: string; words?: string; invoiceId: string; url?: string; on?: CalendarDate };

/** A single card payment at the desk, whose sum with tax is said before it is charged. */
export function DeskPayment({
  customer,
  cards,
  fieldsUrl,
  pricesIncludeTax,
  locale,
  onClose,
}: {
  customer: { id: string; name: string };
  cards: readonly ShownCard[];
  fieldsUrl: string;
  /** Whether the business's prices hold their tax. */
  pricesIncludeTax: boolean;
  locale: string;
  onClose: () => void;
}) {
  const router = useRouter();
  const [what, setWhat] = useState('');
  const [price, setPrice] = useState('');
  const [busy, setBusy] = useState(false);
  const choice = useRef<CardChoiceHandle>(null);
  const [quote, setQuote] = useState<{ currency: string; totalMinor: number; taxMinor: number } | null>(null);
  // What is typed is worked out with the customer's taxes a moment later, so that the sum is said before it is charged.
  useEffect(() => {
    setQuote(null);
    if (!price.trim()) return;
    const stopped = new AbortController();
    const timer = setTimeout(async () => {
      const address = `/api/desk-payments?customerId=${customer.id}&price=${encodeURIComponent(price)}`;
      const answer = await send<typeof quote>('GET', address, undefined, { signal: stopped.signal });
      if (answer.ok && !stopped.signal.aborted) setQuote(answer.value);
    }, 200);
    return () => {
      clearTimeout(timer);
      stopped.abort();
    };
  }, [price, customer.id]);
  const text = (minor: number) => moneyText(money(BigInt(minor), quote?.currency ?? ''), locale);
  const key = useRef('');

  async function pay(): Promise<string> {
    setBusy(true);
    const card = (await choice.current?.chosen()) ?? { trouble: 'Type the card.' };
    if ('trouble' in card) {
      setBusy(false);
      return card.trouble;
    }
    key.current ||= crypto.randomUUID();
    const answer = await send<AttemptStatus>('POST', '/api/desk-payments', {
      customerId: customer.id,
      what,
      price,
      attemptKey: key.current,
      ...card,
    });
    setBusy(false);
    if (!answer.ok) return troubleOf(answer);
    if (answer.value.state === 'approval' && answer.value.url) {
      // The holder approves at the bank, on this screen, and is led back to the invoice.
      location.assign(answer.value.url);
      return '';
    }
    if (answer.value.state === 'refused') {
      router.push(`/ask/invoices/${answer.value.invoiceId}` as Route);
      sayTrouble(answer.value.words ?? 'The card was refused.');
      return '';
    }
    say(
      answer.value.state === 'collecting'
        ? `The bank debit is under way; it is known by ${answer.value.on ? longDate(answer.value.on, locale) : 'then'} whether it is paid`
        : answer.value.state === 'paid'
          ? 'Paid; the receipt is on its way'
          : 'The card processor is being asked',
    );
    router.push(`/ask/invoices/${answer.value.invoiceId}` as Route);
    router.refresh();
    return '';
  }
  return (
    <FormDialog
      title="Take a card payment"
      about={`${customer.name} is here, or on the telephone. An invoice and a receipt are made.`}
      action={quote ? `Charge ${text(quote.totalMinor)}` : 'Charge the card'}
      busy={busy}
      disabled={!what.trim() || !quote}
      onClose={onClose}
      onSure={pay}
    >
      <Field
        label="What for"
        value={what}
        maxLength={200}
        autoFocus
        onChange={(event) => setWhat(event.target.value)}
      />
      <NumberField
        label={pricesIncludeTax ? 'Price, with tax' : 'Price, before tax'}
        hint={quote && quote.taxMinor > 0 ? `${text(quote.taxMinor)} of it is tax` : undefined}
        value={price}
        onChange={(event) => setPrice(event.target.value)}
      />
      <CardChoice cards={cards} fieldsUrl={fieldsUrl} handle={choice} />
    </FormDialog>
  );
}
