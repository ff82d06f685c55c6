import type { Route } from 'next';
import Link from 'next/link';
import { Amount } from '../kit/amount';
import { Rosette } from '../rosette';

type Row = {
  readonly id: string;
  readonly paymentId: string | null;
  readonly payer: string;
  readonly reference: string;
  readonly state: 'Pending' | 'Refused' | 'Paid' | 'Part-refunded' | 'Refunded';
  readonly minor: number;
  readonly currency: string;
  readonly when: string;
};

/** Who paid, or tried to, latest first; each leads to its payment. */
export function OfferOrders({
  rows,
  locale,
  answers,
}: {
  rows: readonly Row[];
  locale: string;
  /** Where the answers to its own questions stand as a table; null where it asks none. */
  answers: string | null;
}) {
  return (
    <section aria-label="Payments" className="mt-6">
      <div className="flex items-baseline gap-4 border-b border-ink pb-1">
        <h2 className="title-section flex-1">Payments</h2>
        {answers && rows.length > 0 ? (
          <Link className="link" href={answers as Route}>
            Answers as a table
          </Link>
        ) : null}
      </div>
      {rows.length === 0 ? <p className="py-3 text-soft">Nobody has paid yet.</p> : null}
      <ul>
        {rows.map((row) => {
          const inside = (
            <>
              <Rosette
                state={row.state}
                share={row.state === 'Paid' || row.state === 'Part-refunded' ? 1 : 0}
                size={22}
              />
              <span className="min-w-0">
                <span className="private block truncate font-serif text-[16px]/5">{row.payer}</span>
                <span className="block truncate text-[12.5px]/[17px] text-soft">
                  {row.state} · {row.reference}
                </span>
              </span>
              <span className="text-right">
                <span className="block font-serif text-[16px]/5">
                  <Amount minor={row.minor} currency={row.currency} locale={locale} />
                </span>
                <span className="block text-[12.5px]/[17px] text-soft">{row.when}</span>
              </span>
            </>
          );
          const look = 'grid min-h-[46px] grid-cols-[34px_minmax(0,1fr)_auto] items-center border-b border-rule';
          return (
            <li key={row.id}>
              {row.paymentId ? (
                <Link href={`/money/payments/${row.paymentId}` as Route} className={`${look} hover:bg-wash`}>
                  {inside}
                </Link>
              ) : (
                <div className={look}>{inside}</div>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
