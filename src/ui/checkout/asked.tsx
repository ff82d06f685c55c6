'use client';
import { useState } from 'react';
import type { Choice } from '@/core/offer/choice';
import type { OfferField } from '@/core/offer/offer';
import type { ShownOffer } from '@/core/offer/shown';
import { NO_ADDRESS } from '@/core/place/address';
import { Check } from '../kit/check';
import { NativeSelect } from '../kit/native-select';
import { sendFile } from '../kit/send-file';
import { troubleWords } from '../payer/trouble-words';
import type { CheckoutWords } from './checkout-words';
import { GiftFields } from './gift-fields';
import { PayerAddress } from './payer-address';
import { PayerField } from './payer-field';

type Props = {
  path: string;
  offer: ShownOffer;
  choice: Choice;
  /** What a request fixed, by field. */
  fixed: ReadonlySet<string>;
  words: CheckoutWords;
  problemOf: (field: string) => string | undefined;
  change: (part: Partial<Choice>, ...fields: string[]) => void;
  leave: (field: string) => void;
};

/** The answer to a question of the business's own. */
function OwnField({ path, field, choice, fixed, words, problemOf, change, leave }: Props & { field: OfferField }) {
  const name = `answers.${field.id}`;
  const answer = choice.answers[field.id] ?? '';
  const set = (text: string, touched = false) =>
    change({ answers: { ...choice.answers, [field.id]: text } }, ...(touched ? [name] : []));
  const [kept, setKept] = useState('');
  const [trouble, setTrouble] = useState('');
  const disabled = fixed.has(name);
  const problem = trouble || problemOf(name);
  if (field.kind === 'tick')
    return (
      <div>
        <label className="flex min-h-11 items-center gap-3 text-[16px]">
          <Check
            tall
            disabled={disabled}
            checked={answer === 'yes'}
            onChange={(event) => set(event.target.checked ? 'yes' : '', true)}
          />
          {field.label}
        </label>
        {problem ? <p className="text-[14px]/5 font-medium text-brick">{problem}</p> : null}
        {field.help ? <p className="text-[14px]/5 text-soft">{field.help}</p> : null}
      </div>
    );
  return (
    <PayerField
      label={field.label}
      optional={field.required ? undefined : words.optional}
      help={kept || field.help}
      trouble={problem}
    >
      {(tied) => {
        if (field.kind === 'choice')
          return (
            <NativeSelect
              {...tied}
              disabled={disabled}
              value={answer}
              onChange={(event) => set(event.target.value, true)}
            >
              <option value="">{words.choose}</option>
              {field.choices.map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </NativeSelect>
          );
        if (field.kind === 'file')
          return (
            <input
              {...tied}
              type="file"
              disabled={disabled}
              className={`${tied.className} py-2`}
              onChange={async (event) => {
                const file = event.target.files?.[0];
                if (!file) return set('', true);
                const stored = await sendFile<{ id: string; name: string }>(
                  `${path}/file?name=${encodeURIComponent(file.name)}`,
                  file,
                );
                setTrouble(troubleWords(words.troubles, stored));
                setKept(stored.ok ? `${words.fileKept} ${stored.value.name}` : '');
                set(stored.ok ? stored.value.id : '', true);
              }}
            />
          );
        return (
          <input
            {...tied}
            type={field.kind === 'date' ? 'date' : 'text'}
            inputMode={field.kind === 'number' ? 'decimal' : undefined}
            maxLength={1000}
            disabled={disabled}
            value={answer}
            onChange={(event) => set(event.target.value)}
            onBlur={() => leave(name)}
          />
        );
      }}
    </PayerField>
  );
}

/** Everything the payer is asked: who, where to, what the business wants to know. */
export function Asked(props: Props) {
  const { offer, choice, fixed, words, problemOf, change, leave } = props;
  const text = (field: 'name' | 'email' | 'phone', label: string, autoComplete: string, more: object = {}) => (
    <PayerField
      label={label}
      trouble={problemOf(field)}
      optional={field === 'phone' && offer.phone === 'may' ? words.optional : undefined}
    >
      {(tied) => (
        <input
          {...tied}
          {...more}
          data-asked={field}
          autoComplete={autoComplete}
          maxLength={160}
          disabled={fixed.has(field)}
          value={choice[field]}
          onChange={(event) => change({ [field]: event.target.value })}
          onBlur={() => leave(field)}
        />
      )}
    </PayerField>
  );
  const address = (which: 'delivery' | 'billing', legend: string) => (
    <PayerAddress
      legend={legend}
      optional={which === 'billing' && offer.billing === 'may' ? words.optional : undefined}
      address={choice[which] ?? NO_ADDRESS}
      // One is billed anywhere, and has things sent to where they are sent.
      countries={
        which === 'billing' ? offer.countries : offer.countries.filter(({ code }) => offer.deliveredTo.includes(code))
      }
      troubleOf={(part) => problemOf(`${which}.${part}`)}
      words={words}
      onChange={(next) =>
        change({ [which]: next }, ...(next.country === choice[which]?.country ? [] : [`${which}.country`]))
      }
      onLeave={(part) => leave(`${which}.${part}`)}
    />
  );
  return (
    <div className="grid gap-5">
      <h2 className="border-b border-ink pb-1 font-serif text-[19px] font-semibold">{words.aboutYou}</h2>
      <div className="grid gap-4 sm:grid-cols-2">
        {text('name', words.name, 'name')}
        {text('email', words.email, 'email', { type: 'email', inputMode: 'email' })}
        {offer.phone === 'no' ? null : text('phone', words.phone, 'tel', { type: 'tel' })}
      </div>
      {offer.sellsVoucher ? (
        <GiftFields
          choice={choice}
          days={offer.sellsVoucher}
          words={words}
          problemOf={problemOf}
          change={change}
          leave={leave}
        />
      ) : null}
      {offer.delivers ? address('delivery', words.deliveryTo) : null}
      {offer.delivers && offer.billing !== 'no' ? (
        <label className="flex min-h-11 items-center gap-3 text-[16px]">
          <Check
            tall
            checked={choice.billing === null}
            onChange={(event) =>
              change({
                billing: event.target.checked ? null : { ...NO_ADDRESS, country: choice.delivery?.country ?? '' },
              })
            }
          />
          {words.sameAddress}
        </label>
      ) : null}
      {offer.billing === 'no' || (offer.delivers && choice.billing === null) ? null : address('billing', words.billing)}
      {offer.fields.map((field) => (
        <OwnField key={field.id} field={field} {...props} />
      ))}
      {offer.message ? (
        <PayerField label={words.message} optional={words.optional}>
          {(tied) => (
            <textarea
              {...tied}
              rows={3}
              maxLength={2000}
              className={`${tied.className} py-2`}
              value={choice.message}
              onChange={(event) => change({ message: event.target.value })}
            />
          )}
        </PayerField>
      ) : null}
    </div>
  );
}
