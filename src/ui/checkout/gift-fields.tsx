'use client';
import { useState } from 'react';
import type { Choice } from '@/core/offer/choice';
import { isForOther, NO_GIFT } from '@/core/voucher/gift';
import { Radio } from '../kit/check';
import type { CheckoutWords } from './checkout-words';
import { PayerField } from './payer-field';

/** For whom a voucher is bought: for the payer, or for somebody else on a day of the payer's choice. */
export function GiftFields({
  choice,
  days,
  words,
  problemOf,
  change,
  leave,
}: {
  choice: Choice;
  /** Between which days it can be sent. */
  days: { readonly from: string; readonly to: string };
  words: CheckoutWords;
  problemOf: (field: string) => string | undefined;
  change: (part: Partial<Choice>, ...fields: string[]) => void;
  leave: (field: string) => void;
}) {
  const gift = choice.gift ?? NO_GIFT;
  const [other, setOther] = useState(isForOther(gift));
  const set = (part: Partial<typeof gift>) => change({ gift: { ...gift, ...part } });
  const text = (field: 'toName' | 'toEmail' | 'on', label: string, more: object = {}, help = '') => (
    <PayerField label={label} help={help || undefined} trouble={problemOf(`gift.${field}`)}>
      {(tied) => (
        <input
          {...tied}
          {...more}
          autoComplete="off"
          value={gift[field]}
          onChange={(event) => set({ [field]: event.target.value })}
          onBlur={() => leave(`gift.${field}`)}
        />
      )}
    </PayerField>
  );
  return (
    <fieldset className="grid gap-4">
      <legend className="mb-1 w-full border-b border-ink pb-1 font-serif text-[19px] font-semibold">
        {words.gift.forWhom}
      </legend>
      <div>
        {[[false, words.gift.forMe] as const, [true, words.gift.forOther] as const].map(([isOther, label]) => (
          <label key={label} className="flex min-h-11 items-center gap-3 border-b border-rule text-[16px]">
            <Radio
              tall
              name="for-whom"
              checked={other === isOther}
              onChange={() => {
                setOther(isOther);
                if (!isOther) change({ gift: NO_GIFT });
              }}
            />
            {label}
          </label>
        ))}
      </div>
      {other ? (
        <>
          <div className="grid gap-4 sm:grid-cols-2">
            {text('toName', words.gift.toName, { maxLength: 120 })}
            {text(
              'toEmail',
              words.gift.toEmail,
              { type: 'email', inputMode: 'email', maxLength: 200 },
              words.gift.toEmailHelp,
            )}
            {text('on', words.gift.on, { type: 'date', min: days.from, max: days.to }, words.gift.onHelp)}
          </div>
          <PayerField label={words.gift.message} optional={words.optional}>
            {(tied) => (
              <textarea
                {...tied}
                rows={3}
                maxLength={600}
                className={`${tied.className} py-2`}
                value={gift.message}
                onChange={(event) => set({ message: event.target.value })}
              />
            )}
          </PayerField>
        </>
      ) : null}
    </fieldset>
  );
}
