'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { typedMinor, typedShare } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import { DayField } from '../day-input';
import { Empty } from '../empty';
import { Field } from '../field';
import { FormDialog } from '../form-dialog';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';

/** A code as its table shows it; amounts in minor units. */
export type ShownCode = {
  readonly id: string;
  readonly code: string;
  readonly note: string;
  readonly percent: string | null;
  readonly amountMinor: number | null;
  readonly currency: string;
  readonly from: string;
  readonly to: string;
  readonly leastMinor: number;
  readonly mostUses: number | null;
  readonly mostEach: number | null;
  readonly itemIds: readonly string[];
  readonly uses: number;
  readonly sums: readonly { readonly currency: string; readonly paidMinor: number; readonly discountMinor: number }[];
};

type Form = Pick<ShownCode, 'code' | 'note' | 'from' | 'to' | 'itemIds'> & {
  off: string;
  least: string;
  uses: string;
  each: string;
};

const BLANK: Form = { code: '', note: '', off: '', from: '', to: '', least: '', uses: '', each: '', itemIds: [] };

/** Discount codes with what they take off, when they count, how often they were used and what they brought in. */
export function CodeTable({
  codes,
  currency,
  locale,
  items,
  mayAsk,
}: {
  codes: readonly ShownCode[];
  currency: string;
  locale: string;
  items: readonly { readonly id: string; readonly name: string }[];
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [editing, setEditing] = useState<{ id: string | null; form: Form } | null>(null);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const digits = minorDigits(currency);
  const text = (minor: number, of = currency) => moneyText(money(BigInt(minor), of), locale);
  const set = (part: Partial<Form>) => setEditing((now) => now && { ...now, form: { ...now.form, ...part } });
  const formOf = (code: ShownCode): Form => ({
    ...code,
    off: code.percent !== null ? `${code.percent}%` : decimalText(BigInt(code.amountMinor ?? 0), digits),
    least: code.leastMinor > 0 ? decimalText(BigInt(code.leastMinor), digits) : '',
    uses: code.mostUses === null ? '' : String(code.mostUses),
    each: code.mostEach === null ? '' : String(code.mostEach),
  });

  async function keep(): Promise<string> {
    if (!editing) return '';
    const { id, form } = editing;
    const off = typedShare(form.off, digits);
    const least = typedMinor(form.least, digits);
    if (!off || least === null) {
      const places = {
        ...(off ? {} : { off: 'Write it as 10% or as an amount.' }),
        ...(least === null ? { least: 'Write this amount as a number.' } : {}),
      };
      setTroubles(places);
      return '';
    }
    const count = (typed: string) => (typed.trim() === '' ? null : Number(typed));
    setBusy(true);
    const body = {
      code: form.code,
      note: form.note,
      percent: 'percent' in off ? off.percent : null,
      amountMinor: 'amount' in off ? Number(off.amount) : null,
      currency,
      from: form.from,
      to: form.to,
      leastMinor: Number(least),
      mostUses: count(form.uses),
      mostEach: count(form.each),
      itemIds: form.itemIds,
    };
    const answer = await send(id ? 'PUT' : 'POST', id ? `/api/codes/${id}` : '/api/codes', body);
    setBusy(false);
    if (!answer.ok) {
      setTroubles(Object.fromEntries(answer.fields.map(({ field, words }) => [field, words])));
      return troubleOf(answer);
    }
    setEditing(null);
    setTroubles({});
    say('The code is kept');
    router.refresh();
    return '';
  }

  async function remove(code: ShownCode) {
    const answer = await send('DELETE', `/api/codes/${code.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${code.code} counts no more`);
    router.refresh();
  }

  return (
    <div className="mx-auto max-w-[1100px] px-4 pb-10 sm:px-7">
      <div className="flex items-baseline gap-4 pb-3">
        <h1 className="title-screen flex-1">Discount codes</h1>
        {mayAsk ? (
          <button type="button" className="btn btn-go" onClick={() => setEditing({ id: null, form: BLANK })}>
            New code
          </button>
        ) : null}
      </div>
      {codes.length === 0 ? (
        <Empty words="No code yet. A code takes a share or an amount off, where an offer lets codes be used." />
      ) : (
        <table className="w-full border-collapse">
          <thead>
            <tr className="border-b border-ink text-left text-soft">
              <th className="small pb-1 font-medium">Code</th>
              <th className="small pb-1 font-medium">Takes off</th>
              <th className="small pb-1 font-medium">Counts</th>
              <th className="small pb-1 text-right font-medium">Used</th>
              <th className="small pb-1 pl-4 text-right font-medium">Given</th>
              <th className="small pb-1 pl-4 text-right font-medium">Brought in</th>
              <th className="sr-only">Change</th>
            </tr>
          </thead>
          <tbody>
            {codes.map((code) => (
              <tr key={code.id} className="border-b border-rule align-baseline">
                <td className="py-2 pr-3">
                  <span className="font-serif text-[16.5px] font-medium">{code.code}</span>
                  {code.note ? <span className="block text-[12.5px] text-soft">{code.note}</span> : null}
                </td>
                <td className="py-2 pr-3">
                  {code.percent !== null ? `${code.percent} %` : text(code.amountMinor ?? 0, code.currency)}
                  {code.itemIds.length > 0 ? (
                    <span className="block text-[12.5px] text-soft">only some items</span>
                  ) : null}
                </td>
                <td className="py-2 pr-3">
                  {[
                    code.from ? `from ${code.from}` : '',
                    code.to ? `to ${code.to}` : '',
                    code.leastMinor > 0 ? `from ${text(code.leastMinor, code.currency)} on` : '',
                    code.mostEach !== null ? `${code.mostEach} each` : '',
                  ]
                    .filter(Boolean)
                    .join(', ') || 'always'}
                </td>
                <td className="whitespace-nowrap py-2 text-right">
                  {code.uses}
                  {code.mostUses === null ? '' : ` of ${code.mostUses}`}
                </td>
                <td className="whitespace-nowrap py-2 pl-4 text-right font-serif text-[15px]">
                  {code.sums.map((sum) => (
                    <span key={sum.currency} className="private block">
                      {sum.currency === currency
                        ? figureText(money(BigInt(sum.discountMinor), sum.currency), locale)
                        : text(sum.discountMinor, sum.currency)}
                    </span>
                  ))}
                </td>
                <td className="whitespace-nowrap py-2 pl-4 text-right font-serif text-[15px]">
                  {code.sums.map((sum) => (
                    <span key={sum.currency} className="private block">
                      {sum.currency === currency
                        ? figureText(money(BigInt(sum.paidMinor), sum.currency), locale)
                        : text(sum.paidMinor, sum.currency)}
                    </span>
                  ))}
                </td>
                <td className="whitespace-nowrap py-2 pl-4 text-right">
                  {mayAsk ? (
                    <span className="inline-flex gap-4">
                      <button
                        type="button"
                        className="link link-small"
                        onClick={() => setEditing({ id: code.id, form: formOf(code) })}
                      >
                        Change {code.code}
                      </button>
                      <button type="button" className="link link-small" onClick={() => void remove(code)}>
                        Take away
                      </button>
                    </span>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {editing ? (
        <FormDialog
          title={editing.id ? 'Change the code' : 'New code'}
          about="Capitals and small letters are the same, spaces do not count."
          action="Keep code"
          busy={busy}
          onClose={() => {
            setEditing(null);
            setTroubles({});
          }}
          onSure={keep}
        >
          <div className="grid grid-cols-2 gap-3">
            <Field
              label="Code"
              className="[&_input]:uppercase"
              value={editing.form.code}
              maxLength={40}
              error={troubles.code}
              onChange={(event) => set({ code: event.target.value })}
            />
            <Field
              label={`Takes off, as 10% or in ${currency}`}
              value={editing.form.off}
              error={troubles.off ?? troubles.percent}
              onChange={(event) => set({ off: event.target.value })}
            />
            <DayField label="First day" value={editing.form.from} onDay={(day) => set({ from: day })} />
            <DayField label="Last day" value={editing.form.to} error={troubles.to} onDay={(day) => set({ to: day })} />
            <Field
              label="Uses at most"
              inputMode="numeric"
              value={editing.form.uses}
              error={troubles.mostUses}
              onChange={(event) => set({ uses: event.target.value })}
            />
            <Field
              label="Each payer at most"
              inputMode="numeric"
              value={editing.form.each}
              error={troubles.mostEach}
              onChange={(event) => set({ each: event.target.value })}
            />
            <Field
              label={`From a sum of, ${currency}`}
              inputMode="decimal"
              value={editing.form.least}
              error={troubles.least}
              onChange={(event) => set({ least: event.target.value })}
            />
            <Field
              label="Note for you"
              value={editing.form.note}
              maxLength={200}
              onChange={(event) => set({ note: event.target.value })}
            />
          </div>
          {items.length > 0 ? (
            <details>
              <summary className="min-h-8 py-1">
                {editing.form.itemIds.length > 0 ? `Only for ${editing.form.itemIds.length} items` : 'For everything'}
              </summary>
              <div
                className="max-h-[180px] overflow-auto border-y border-rule"
                role="group"
                aria-label="Items that the code is for"
              >
                {items.map((item) => (
                  <label key={item.id} className="flex items-center gap-2.5 border-b border-rule px-1 py-1.5">
                    <input
                      type="checkbox"
                      className="size-4 flex-none accent-plum"
                      checked={editing.form.itemIds.includes(item.id)}
                      onChange={(event) =>
                        set({
                          itemIds: event.target.checked
                            ? [...editing.form.itemIds, item.id]
                            : editing.form.itemIds.filter((id) => id !== item.id),
                        })
                      }
                    />
                    {item.name}
                  </label>
                ))}
              </div>
            </details>
          ) : null}
        </FormDialog>
      ) : null}
    </div>
  );
}
