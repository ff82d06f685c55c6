'use client';
import type { Choice } from '@/core/offer/choice';
import type { ShownOffer, ShownOfferItem } from '@/core/offer/shown';
import { Button } from '../kit/button';
import { Radio } from '../kit/check';
import { NativeSelect } from '../kit/native-select';
import { NumberInput } from '../kit/number-input';
import type { CheckoutWords } from './checkout-words';
import { PayerField } from './payer-field';

type Props = {
  offer: ShownOffer;
  choice: Choice;
  fixed: boolean;
  words: CheckoutWords;
  problemOf: (field: string) => string | undefined;
  change: (part: Partial<Choice>, ...fields: string[]) => void;
  leave: (field: string) => void;
};

/** How many pieces can be chosen at most: what is allowed and what is left. */
const mostOf = (item: ShownOfferItem, left: number | null): number =>
  left === null ? item.most : Math.min(item.most, left);

const Trouble = ({ children }: { children: string | undefined }) =>
  children ? <p className="mt-1 text-[14px]/5 font-medium text-brick">{children}</p> : null;

/** One item: which, and how many. */
function ChooseItem({ item, choice, fixed, words, problemOf, change }: Props & { item: ShownOfferItem }) {
  const field = `items.${item.id}`;
  const mine = choice.items.find(({ id }) => id === item.id);
  const option = item.options.find(({ id }) => id === mine?.optionId);
  const left = option ? option.left : item.left;
  const gone = left !== null && left <= 0;
  const count = Number(mine?.quantity ?? item.least);
  const set = (part: { optionId?: string; quantity?: string }) =>
    change(
      {
        items: choice.items.map((one) => (one.id === item.id ? { ...one, ...part } : one)),
      },
      field,
    );
  const single = item.least === 1 && item.most === 1;
  const most = mostOf(item, left);
  return (
    <li className="border-b border-rule py-3.5">
      <div className="flex items-baseline justify-between gap-4">
        <span className="font-serif text-[18px]/6 font-medium">{item.name}</span>
        <span className="whitespace-nowrap font-serif text-[16px]">
          {option
            ? option.price
            : item.options.length > 0 && item.price
              ? words.from.replace('{price}', item.price)
              : item.price}
        </span>
      </div>
      {item.note ? <p className="mt-0.5 text-[15px]/[22px] text-soft">{item.note}</p> : null}
      <div className="mt-2 flex flex-wrap items-end gap-3">
        {item.options.length > 0 ? (
          <div className="min-w-[180px] flex-1">
            <PayerField label={words.which}>
              {(tied) => (
                <NativeSelect
                  {...tied}
                  disabled={fixed}
                  aria-label={`${words.which}: ${item.name}`}
                  value={mine?.optionId ?? ''}
                  onChange={(event) =>
                    set({
                      optionId: event.target.value,
                      ...(count === 0 && event.target.value ? { quantity: '1' } : {}),
                    })
                  }
                >
                  <option value="">{words.choose}</option>
                  {item.options.map((one) => (
                    <option key={one.id} value={one.id} disabled={one.left === 0}>
                      {[one.name, one.price, one.left === 0 ? words.soldOut : ''].filter(Boolean).join(' · ')}
                    </option>
                  ))}
                </NativeSelect>
              )}
            </PayerField>
          </div>
        ) : null}
        {gone ? (
          <b className="pb-2 font-semibold text-brick">{words.soldOut}</b>
        ) : single ? null : (
          <fieldset className="flex items-center" aria-label={`${words.howMany}: ${item.name}`}>
            <Button
              className="min-h-11 !px-4"
              aria-label={`− ${item.name}`}
              disabled={fixed || !(count > item.least)}
              onClick={() => set({ quantity: String(count - 1) })}
            >
              −
            </Button>
            <input
              aria-label={`${words.howMany}: ${item.name}`}
              className="input mx-1 min-h-11 !w-[64px] text-center !text-[16px]"
              inputMode="numeric"
              disabled={fixed}
              value={mine?.quantity ?? ''}
              aria-invalid={problemOf(field) ? true : undefined}
              onChange={(event) => set({ quantity: event.target.value.replace(/\D/g, '').slice(0, 6) })}
            />
            <Button
              className="min-h-11 !px-4"
              aria-label={`+ ${item.name}`}
              disabled={fixed || count >= most}
              onClick={() => set({ quantity: String((Number.isFinite(count) ? count : 0) + 1) })}
            >
              +
            </Button>
          </fieldset>
        )}
        {left !== null && !gone && left <= 10 ? (
          <span className="pb-2.5 text-[14px] text-ochre">{words.left.replace('{count}', String(left))}</span>
        ) : null}
      </div>
      <Trouble>{problemOf(field)}</Trouble>
    </li>
  );
}

/** What is chosen and how much is given: by kind of offer. */
export function Choose(props: Props) {
  const { offer, choice, fixed, words, problemOf, change, leave } = props;
  if (offer.kind === 'items')
    return (
      <div>
        <ul className="border-t border-ink">
          {offer.items.map((item) => (
            <ChooseItem key={item.id} item={item} {...props} />
          ))}
        </ul>
        <Trouble>{problemOf('items')}</Trouble>
      </div>
    );
  if (offer.kind === 'sum') return null;
  const suggested = offer.amounts.some(({ value }) => value === choice.amount);
  return (
    <div className="grid gap-5">
      <fieldset disabled={fixed}>
        <legend className="mb-2 text-[15px] font-medium">{words.amount}</legend>
        {offer.amounts.length > 0 ? (
          <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
            {offer.amounts.map(({ value, text }) => (
              <button
                key={value}
                type="button"
                aria-pressed={choice.amount === value}
                onClick={() => change({ amount: value }, 'amount')}
                className={`min-h-12 rounded-control border px-3 font-serif text-[18px] ${
                  choice.amount === value
                    ? 'border-plum bg-petal font-semibold shadow-[inset_0_0_0_1px_var(--plum)]'
                    : 'border-edge bg-sheet'
                }`}
              >
                {text}
              </button>
            ))}
          </div>
        ) : null}
        {offer.ownAmount ? (
          <div className={offer.amounts.length > 0 ? 'mt-3' : ''}>
            <PayerField
              label={`${offer.amounts.length > 0 ? words.ownAmount : words.amount}, ${choice.currency}`}
              help={offer.ownSpan || undefined}
              trouble={problemOf('amount')}
            >
              {(tied) => (
                <NumberInput
                  {...tied}
                  className={`${tied.className} text-right font-serif !text-[18px]`}
                  autoComplete="off"
                  disabled={fixed}
                  value={suggested ? '' : choice.amount}
                  onChange={(event) => change({ amount: event.target.value })}
                  onBlur={() => leave('amount')}
                />
              )}
            </PayerField>
          </div>
        ) : (
          <Trouble>{problemOf('amount')}</Trouble>
        )}
      </fieldset>
      {offer.purposes.length > 1 ? (
        <fieldset disabled={fixed}>
          <legend className="mb-1 text-[15px] font-medium">{words.purpose}</legend>
          {offer.purposes.map((purpose) => (
            <label key={purpose} className="flex min-h-11 items-center gap-3 border-b border-rule text-[16px]">
              <Radio
                tall
                name="purpose"
                checked={choice.purpose === purpose}
                onChange={() => change({ purpose }, 'purpose')}
              />
              {purpose}
            </label>
          ))}
          <Trouble>{problemOf('purpose')}</Trouble>
        </fieldset>
      ) : null}
    </div>
  );
}
