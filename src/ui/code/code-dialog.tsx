'use client';
import { useRouter } from 'next/navigation';
import { typedMinor, typedShare } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { Check } from '../kit/check';
import { DateField } from '../kit/date-field';
import { Field } from '../kit/field';
import { useTyped } from '../kit/form';
import { TypedDialog } from '../kit/form-dialog';
import { MoneyField } from '../kit/money-field';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import type { ShownCode } from './shown-code';

type CodeTyped = Pick<ShownCode, 'code' | 'note' | 'from' | 'to' | 'itemIds'> & {
  off: string;
  least: string;
  uses: string;
  each: string;
};

const BLANK: CodeTyped = { code: '', note: '', off: '', from: '', to: '', least: '', uses: '', each: '', itemIds: [] };

const typedOf = (digits: number, { code, note, from, to, itemIds, ...kept }: ShownCode): CodeTyped => ({
  code,
  note,
  from,
  to,
  itemIds,
  off: kept.percent !== null ? `${kept.percent}%` : decimalText(BigInt(kept.amountMinor ?? 0), digits),
  least: kept.leastMinor > 0 ? decimalText(BigInt(kept.leastMinor), digits) : '',
  uses: kept.mostUses === null ? '' : String(kept.mostUses),
  each: kept.mostEach === null ? '' : String(kept.mostEach),
});

const count = (typed: string) => (typed.trim() === '' ? null : Number(typed));

/** Writes a new code, or changes one. */
export function CodeDialog({
  code,
  currency,
  items,
  onClose,
}: {
  code: ShownCode | null;
  currency: string;
  items: readonly { readonly id: string; readonly name: string }[];
  onClose: () => void;
}) {
  const router = useRouter();
  const digits = minorDigits(currency);
  const form = useTyped<CodeTyped>({
    start: code ? typedOf(digits, code) : BLANK,
    send: async (_, { off: typedOff, least: typedLeast, uses, each, ...rest }) => {
      const off = typedShare(typedOff, digits);
      const least = typedMinor(typedLeast, digits);
      const wrong = [
        ...(off ? [] : [{ field: 'percent', words: 'Write it as 10% or as an amount.' }]),
        ...(least === null ? [{ field: 'leastMinor', words: 'Write this amount as a number.' }] : []),
      ];
      if (!off || least === null) return { ok: false, code: 'unreadable', words: '', fields: wrong };
      return send(code ? 'PUT' : 'POST', code ? `/api/codes/${code.id}` : '/api/codes', {
        ...rest,
        percent: 'percent' in off ? off.percent : null,
        amountMinor: 'amount' in off ? Number(off.amount) : null,
        currency,
        leastMinor: Number(least),
        mostUses: count(uses),
        mostEach: count(each),
      });
    },
    done: () => {
      say('The code is saved');
      onClose();
      router.refresh();
    },
  });
  const { values, set, at } = form;
  return (
    <TypedDialog
      of={form}
      title={code ? 'Edit code' : 'New code'}
      about="Capitals and small letters are the same, spaces do not count."
      action="Save code"
      onClose={onClose}
    >
      <div className="grid grid-cols-2 gap-3">
        <Field
          label="Code"
          className="[&_input]:uppercase"
          value={values.code}
          maxLength={40}
          error={at('code')}
          onChange={(event) => set({ code: event.target.value })}
        />
        <Field
          label={`Takes off, as 10% or in ${currency}`}
          value={values.off}
          error={at('percent')}
          onChange={(event) => set({ off: event.target.value })}
        />
        <DateField label="First day" value={values.from} onDay={(day) => set({ from: day })} />
        <DateField label="Last day" value={values.to} error={at('to')} onDay={(day) => set({ to: day })} />
        <Field
          label="Uses at most"
          inputMode="numeric"
          value={values.uses}
          error={at('mostUses')}
          onChange={(event) => set({ uses: event.target.value })}
        />
        <Field
          label="Each payer at most"
          inputMode="numeric"
          value={values.each}
          error={at('mostEach')}
          onChange={(event) => set({ each: event.target.value })}
        />
        <MoneyField
          label={`From a sum of, ${currency}`}
          currency={currency}
          value={values.least}
          error={at('leastMinor')}
          onChange={(event) => set({ least: event.target.value })}
        />
        <Field
          label="Note for you"
          value={values.note}
          maxLength={200}
          onChange={(event) => set({ note: event.target.value })}
        />
      </div>
      {items.length > 0 ? (
        <details>
          <summary className="min-h-8 py-1">
            {values.itemIds.length > 0 ? `Only for ${values.itemIds.length} items` : 'For everything'}
          </summary>
          <div
            className="max-h-[180px] overflow-auto border-y border-rule"
            role="group"
            aria-label="Items that the code is for"
          >
            {items.map((item) => (
              <label key={item.id} className="flex items-center gap-2.5 border-b border-rule px-1 py-1.5">
                <Check
                  checked={values.itemIds.includes(item.id)}
                  onChange={(event) =>
                    set({
                      itemIds: event.target.checked
                        ? [...values.itemIds, item.id]
                        : values.itemIds.filter((id) => id !== item.id),
                    })
                  }
                />
                {item.name}
              </label>
            ))}
          </div>
        </details>
      ) : null}
    </TypedDialog>
  );
}
