import { Amount, Figure } from '../kit/amount';

/** What is shown comes to, in one currency; minor units. */
export type JsonSum = {
  readonly currency: string;
  readonly payments: number;
  readonly paid: number;
  readonly refunds: number;
  readonly refunded: number;
};

const counted = (count: number, one: string, many: string) =>
  `${count.toLocaleString('en')} ${count === 1 ? one : many}`;

/** The sums of what is shown, a column a currency; no sum across currencies. @param sums null while they are being counted */
export function RegisterSums({
  sums,
  own,
  locale,
}: {
  sums: readonly JsonSum[] | null;
  /** The business's own currency, whose figures need no sign while they stand alone. */
  own: string;
  locale: string;
}) {
  if (!sums)
    return (
      <p className="pb-2 text-soft" role="status">
        Counting what this comes to …
      </p>
    );
  if (sums.length === 0) return null;
  const columns = sums.slice(0, 3);
  // With several currencies each figure says which it is.
  const Shown = columns.length > 1 || columns[0]?.currency !== own ? Amount : Figure;
  const all = (of: (sum: JsonSum) => number) => sums.reduce((total, sum) => total + of(sum), 0);
  const payments = all((sum) => sum.payments);
  const refunds = all((sum) => sum.refunds);
  const cell = 'py-0.5 pl-3 text-right font-serif text-[14.5px]/5';
  const row = (label: string, of: (sum: JsonSum) => number) => (
    <tr>
      <th
        scope="row"
        className={`w-full py-0.5 text-left ${label === 'Shown' ? 'font-semibold' : 'font-normal text-soft'}`}
      >
        {label}
      </th>
      {columns.map((sum) => (
        <td key={sum.currency} className={cell}>
          {of(sum) === 0 ? '–' : <Shown minor={of(sum)} currency={sum.currency} locale={locale} />}
        </td>
      ))}
    </tr>
  );
  return (
    <div className="pb-2 pr-3">
      <table className="w-full border-collapse text-[12.5px]/5" aria-label="What is shown comes to">
        <tbody>
          {payments > 0 || refunds === 0 ? row(counted(payments, 'payment', 'payments'), (sum) => sum.paid) : null}
          {refunds > 0 ? row(counted(refunds, 'refund', 'refunds'), (sum) => -sum.refunded) : null}
        </tbody>
        {refunds > 0 && payments > 0 ? (
          <tfoot className="rule-total font-semibold">{row('Shown', (sum) => sum.paid - sum.refunded)}</tfoot>
        ) : null}
      </table>
      {sums.length > columns.length ? (
        <p className="text-[12.5px]/5 text-soft">
          and in{' '}
          {sums
            .slice(columns.length)
            .map(({ currency }) => currency)
            .join(', ')}
        </p>
      ) : null}
    </div>
  );
}
