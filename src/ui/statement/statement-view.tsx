'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { wordsOf } from '@/core/words/words';
import { Amount, Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { DateField } from '../kit/date-field';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';

type Line = {
  readonly on: CalendarDate;
  readonly kind: 'invoice' | 'credit-note' | 'payment' | 'refund';
  readonly number: string;
  readonly how: string;
  readonly chargedMinor: number;
  readonly receivedMinor: number;
  readonly balanceMinor: number;
};

/** A customer's account over a period, as it is printed and mailed. Amounts in minor units. */
export function StatementView({
  customerId,
  statement,
  mayAsk,
}: {
  customerId: string;
  statement: {
    readonly payer: { readonly name: string; readonly email: string };
    readonly locale: string;
    readonly currency: string;
    readonly from: CalendarDate;
    readonly to: CalendarDate;
    readonly openingMinor: number;
    readonly closingMinor: number;
    readonly lines: readonly Line[];
    readonly ages: Readonly<Record<string, number>>;
    readonly openCount: number;
  };
  mayAsk: boolean;
}) {
  const router = useRouter();
  const { currency, locale, from, to } = statement;
  const words = wordsOf('en');
  const key = useRef('');
  const [busy, setBusy] = useState(false);
  const query = (part: Record<string, string>) => new URLSearchParams({ from, to, currency, ...part }).toString();
  const ask = (part: Record<string, string>) =>
    router.replace(`/records/customers/${customerId}/statement?${query(part)}` as Route);
  const figure = (minor: number) => (minor === 0 ? null : <Figure minor={minor} currency={currency} locale={locale} />);
  const kinds = {
    invoice: words.invoice,
    'credit-note': words.creditNote,
    payment: words.payment,
    refund: words.refund,
  } as const;

  async function mail() {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const body = { from, to, currency, text: '', requestKey: key.current };
    const answer = await send('POST', `/api/customers/${customerId}/statement`, body);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    key.current = '';
    say(`The statement is on its way to ${statement.payer.email}`);
  }

  return (
    <article className="sheet max-w-[820px] px-7 py-5" aria-label="Statement of account">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1 className="title-screen flex-1">
          Statement, <span className="private">{statement.payer.name}</span>
        </h1>
        <Link className="link" href={`/records/customers/${customerId}` as Route}>
          The customer
        </Link>
        <a className="link" href={`/files/statements/${customerId}?${query({})}`} target="_blank" rel="noreferrer">
          PDF
        </a>
        {mayAsk ? (
          <Button
            look="go"
            busy={busy}
            disabled={!statement.payer.email}
            onClick={() => void mail()}
            busyWords="Sending"
          >
            Mail it
          </Button>
        ) : null}
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <DateField
          label="From"
          className="w-[150px]"
          value={from}
          onDay={(day) => isCalendarDate(day) && ask({ from: day })}
        />
        <DateField
          label="To"
          className="w-[150px]"
          value={to}
          onDay={(day) => isCalendarDate(day) && ask({ to: day })}
        />
        <span className="pb-2 text-soft">in {currency}</span>
      </div>
      <table className="mt-4 w-full border-collapse">
        <thead>
          <tr className="small border-b border-ink text-left text-soft">
            <th className="pb-1 font-medium">Date</th>
            <th className="pb-1 font-medium">What</th>
            <th className="pb-1 text-right font-medium">Charged</th>
            <th className="pb-1 text-right font-medium">Received</th>
            <th className="pb-1 text-right font-medium">Balance</th>
          </tr>
        </thead>
        <tbody className="document">
          <tr className="border-b border-rule">
            <td />
            <td className="py-1 italic">Balance before</td>
            <td />
            <td />
            <td className="text-right">
              <Figure minor={statement.openingMinor} currency={currency} locale={locale} />
            </td>
          </tr>
          {statement.lines.map((line, at) => (
            <tr key={at} className="border-b border-rule align-baseline">
              <td className="whitespace-nowrap py-1 pr-3">{shortDate(line.on, 'en-US', { year: true })}</td>
              <td className="py-1 pr-3">
                {kinds[line.kind]} {line.number}
                {line.how ? <span className="text-soft">, {line.how}</span> : null}
              </td>
              <td className="py-1 text-right">{figure(line.chargedMinor)}</td>
              <td className="py-1 pl-3 text-right">{figure(line.receivedMinor)}</td>
              <td className="py-1 pl-3 text-right">
                <Figure minor={line.balanceMinor} currency={currency} locale={locale} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="leader rule-total mt-3 ml-auto max-w-[340px] py-1 font-serif text-[18px] font-semibold">
        <span>Balance</span>
        <span className="dots" aria-hidden="true" />
        <Amount minor={statement.closingMinor} currency={currency} locale={locale} />
      </p>
      {statement.openCount > 0 ? (
        <dl className="mt-5 flex flex-wrap gap-x-8 gap-y-2" aria-label="How late what is open is">
          {Object.entries(statement.ages).map(([age, minor]) => (
            <div key={age}>
              <dt className="label">{words.ageing[age as keyof typeof words.ageing]}</dt>
              <dd className={`font-serif text-[16px] ${minor > 0 && age !== 'notDue' ? 'text-brick' : ''}`}>
                <Figure minor={minor} currency={currency} locale={locale} />
              </dd>
            </div>
          ))}
        </dl>
      ) : null}
    </article>
  );
}
