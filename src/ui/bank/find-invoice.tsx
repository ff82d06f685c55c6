'use client';
import { useEffect, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { send, troubleOf } from '../kit/send';

export type FoundInvoice = {
  readonly id: string;
  readonly number: string;
  readonly customer: string;
  readonly due: number;
  readonly dueOn: string | null;
};

const WAIT_MS = 200;

/** Open invoices by number or customer; several can be put together for one line. */
export function FindInvoice({
  currency,
  locale,
  first,
  onFound,
  onClose,
}: {
  currency: string;
  locale: string;
  /** What is looked for at first. */
  first: string;
  onFound: (invoices: readonly FoundInvoice[]) => void;
  onClose: () => void;
}) {
  const [words, setWords] = useState(first);
  const [rows, setRows] = useState<readonly FoundInvoice[]>([]);
  const [chosen, setChosen] = useState<readonly FoundInvoice[]>([]);
  const [trouble, setTrouble] = useState('');
  useEffect(() => {
    const timer = setTimeout(async () => {
      const path = `/api/bank/invoices?currency=${currency}&words=${encodeURIComponent(words)}`;
      const answer = await send<{ rows: FoundInvoice[] }>('GET', path);
      setTrouble(answer.ok ? '' : troubleOf(answer));
      if (answer.ok) setRows(answer.value.rows);
    }, WAIT_MS);
    return () => clearTimeout(timer);
  }, [words, currency]);
  const toggle = (invoice: FoundInvoice) =>
    setChosen(
      chosen.some(({ id }) => id === invoice.id) ? chosen.filter(({ id }) => id !== invoice.id) : [...chosen, invoice],
    );
  return (
    <Dialog
      open
      onOpenChange={(next) => !next && onClose()}
      title="Find an invoice"
      about="By number or customer. Choose one, or several that were paid together."
    >
      <Field
        label="Number or customer"
        value={words}
        maxLength={120}
        autoFocus
        onChange={(event) => setWords(event.target.value)}
      />
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      {rows.length === 0 ? <p className="py-3 text-soft">No open invoice in {currency} is called so.</p> : null}
      <ul className="mt-2">
        {rows.map((invoice) => (
          <li key={invoice.id} className="border-b border-rule">
            <label className="grid cursor-pointer grid-cols-[24px_minmax(0,1fr)_auto] items-center gap-2 py-2">
              <Check checked={chosen.some(({ id }) => id === invoice.id)} onChange={() => toggle(invoice)} />
              <span className="min-w-0">
                <span className="private block truncate font-serif text-[16px]">{invoice.customer}</span>
                <span className="small block text-soft">
                  Invoice {invoice.number}
                  {invoice.dueOn ? `, due ${shortDate(invoice.dueOn as CalendarDate, locale)}` : ''}
                </span>
              </span>
              <span className="font-serif text-[16px]">
                <Figure minor={invoice.due} currency={currency} locale={locale} />
              </span>
            </label>
          </li>
        ))}
      </ul>
      <div className="mt-4 flex justify-end gap-3">
        <Button onClick={onClose}>Cancel</Button>
        <Button look="go" disabled={chosen.length === 0} onClick={() => onFound(chosen)}>
          {chosen.length > 1 ? `Take these ${chosen.length}` : 'Take it'}
        </Button>
      </div>
    </Dialog>
  );
}
