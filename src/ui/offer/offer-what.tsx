'use client';
import { Copy, GripVertical, Trash2 } from 'lucide-react';
import { priceIn } from '@/core/item/item';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import {
  MOST_ITEMS,
  MOST_SUGGESTIONS,
  newOfferItem,
  type Offer,
  type OfferItem,
  type OfferKind,
} from '@/core/offer/offer';
import { margin } from '@/core/offer/price';
import { ItemPicker } from '../composer/item-picker';
import { Button } from '../kit/button';
import { Radio, TickField } from '../kit/check';
import { Field, FieldError } from '../kit/field';
import { NumberField, NumberInput } from '../kit/number-input';
import { SelectField } from '../kit/select';
import { PriceFields } from './price-fields';
import type { OfferEditing } from './use-offer';

export const KIND_WORDS: Readonly<Record<OfferKind, { name: string; about: string }>> = {
  sum: { name: 'A fixed sum', about: 'One price for one thing.' },
  items: { name: 'Items', about: 'What is sold, with options and quantity.' },
  open: { name: 'The payer decides', about: 'They write how much.' },
  donation: { name: 'A donation', about: 'Without tax, for a purpose.' },
};

type Props = { of: OfferEditing; classes: readonly string[] };

/** One item of the offer, with its options. */
function ItemRow({
  item,
  at,
  of,
  classes,
  currencies,
  move,
}: Props & { item: OfferItem; at: number; currencies: readonly string[]; move: (by: -1 | 1) => void }) {
  const { offer, set, troubles } = of;
  const path = `items.${at}`;
  const change = (part: Partial<OfferItem>) =>
    set({ items: offer.items.map((one) => (one.id === item.id ? { ...one, ...part } : one)) });
  const earned = margin(item.prices[offer.currency], item.cost, offer.currency);
  const whole = (typed: string, fallback: number) => (/^\d{1,6}$/.test(typed) ? Number(typed) : fallback);
  return (
    <li className="border-b border-rule py-3">
      <div className="flex items-start gap-2">
        <button
          type="button"
          className="mt-6 grid size-7 flex-none cursor-grab place-items-center text-soft"
          aria-label={`Move ${item.name || 'this item'}: arrow up and down`}
          onKeyDown={(event) => {
            if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
            event.preventDefault();
            move(event.key === 'ArrowUp' ? -1 : 1);
          }}
        >
          <GripVertical size={16} strokeWidth={1.5} aria-hidden="true" />
        </button>
        <div className="grid min-w-0 flex-1 gap-3">
          <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_84px_84px]">
            <Field
              label={item.itemId ? 'Item, from Records' : 'Item'}
              value={item.name}
              maxLength={160}
              error={troubles[`${path}.name`]}
              onChange={(event) => change({ name: event.target.value })}
            />
            <Field
              label="At least"
              value={item.least}
              inputMode="numeric"
              error={troubles[`${path}.most`]}
              onChange={(event) => change({ least: whole(event.target.value, 0) })}
            />
            <Field
              label="At most"
              value={item.most}
              inputMode="numeric"
              onChange={(event) => change({ most: whole(event.target.value, 1) })}
            />
          </div>
          <Field
            label="A line about it"
            value={item.note}
            maxLength={1000}
            onChange={(event) => change({ note: event.target.value })}
          />
          <div className="flex flex-wrap items-start gap-3">
            <PriceFields
              label="Price"
              prices={item.prices}
              currencies={currencies}
              path={`${path}.prices`}
              troubles={troubles}
              onChange={(prices) => change({ prices })}
            />
            <NumberField
              label={`Cost, ${offer.currency}`}
              className="w-[110px]"
              maxLength={40}
              value={item.cost ?? ''}
              hint={
                earned
                  ? `Margin ${moneyText(money(earned.minor, offer.currency), 'en-US')}, ${earned.percent} %`
                  : 'Only seen here.'
              }
              onChange={(event) => change({ cost: event.target.value })}
            />
            <SelectField
              label="Tax class"
              className="w-[120px]"
              value={item.taxClass}
              onChange={(event) => change({ taxClass: event.target.value })}
            >
              {[...new Set([...classes, item.taxClass])].map((one) => (
                <option key={one}>{one}</option>
              ))}
            </SelectField>
          </div>
          {item.options.map((option, index) => (
            <div key={option.id} className="flex flex-wrap items-start gap-3 border-t border-rule pt-2">
              <Field
                label="Option"
                className="min-w-[150px] flex-1"
                value={option.name}
                maxLength={80}
                error={troubles[`${path}.options.${index}.name`]}
                onChange={(event) =>
                  change({
                    options: item.options.map((one) =>
                      one.id === option.id ? { ...one, name: event.target.value } : one,
                    ),
                  })
                }
              />
              <PriceFields
                label="Own price"
                prices={option.prices}
                currencies={currencies}
                path={`${path}.options.${index}.prices`}
                troubles={troubles}
                onChange={(prices) =>
                  change({ options: item.options.map((one) => (one.id === option.id ? { ...one, prices } : one)) })
                }
              />
              <Button
                look="small-link"
                className="mt-7"
                onClick={() => change({ options: item.options.filter(({ id }) => id !== option.id) })}
              >
                Remove
              </Button>
            </div>
          ))}
          <Button
            look="small-link"
            opens
            className="justify-self-start"
            onClick={() =>
              change({
                options: [...item.options, { id: crypto.randomUUID(), name: '', prices: {}, optionId: null }],
              })
            }
          >
            Add an option
          </Button>
        </div>
        <button
          type="button"
          className="mt-6 grid size-7 flex-none place-items-center text-soft hover:text-ink"
          aria-label={`Copy ${item.name || 'this item'}`}
          onClick={() => {
            const copy = {
              ...item,
              id: crypto.randomUUID(),
              options: item.options.map((option) => ({ ...option, id: crypto.randomUUID() })),
            };
            set({ items: [...offer.items.slice(0, at + 1), copy, ...offer.items.slice(at + 1)] });
          }}
        >
          <Copy size={15} strokeWidth={1.5} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="mt-6 grid size-7 flex-none place-items-center text-soft hover:text-ink"
          aria-label={`Remove ${item.name || 'this item'}`}
          onClick={() => set({ items: offer.items.filter(({ id }) => id !== item.id) })}
        >
          <Trash2 size={15} strokeWidth={1.5} aria-hidden="true" />
        </button>
      </div>
    </li>
  );
}

function Items({ of, classes, currencies }: Props & { currencies: readonly string[] }) {
  const { offer, set, troubles } = of;
  const move = (at: number, by: -1 | 1) => {
    const items = [...offer.items];
    const [one] = items.splice(at, 1);
    if (one) items.splice(Math.min(items.length, Math.max(0, at + by)), 0, one);
    set({ items });
  };
  return (
    <div>
      <ul className="border-t border-ink">
        {offer.items.map((item, at) => (
          <ItemRow
            key={item.id}
            item={item}
            at={at}
            of={of}
            classes={classes}
            currencies={currencies}
            move={(by) => move(at, by)}
          />
        ))}
      </ul>
      {troubles.items ? <FieldError>{troubles.items}</FieldError> : null}
      {offer.items.length < MOST_ITEMS ? (
        <div className="mt-2 flex gap-5">
          <ItemPicker
            currency={offer.currency}
            onChoose={(item, option) => {
              const known = offer.items.find(({ itemId }) => itemId === item.id);
              const optionOf = (one: NonNullable<typeof option>) => ({
                id: crypto.randomUUID(),
                name: one.name,
                prices: { ...one.prices },
                optionId: one.id,
              });
              if (known && option) {
                const there = known.options.some(({ optionId }) => optionId === option.id);
                const options = there ? known.options : [...known.options, optionOf(option)];
                return set({ items: offer.items.map((one) => (one === known ? { ...one, options } : one)) });
              }
              set({
                items: [
                  ...offer.items,
                  newOfferItem(crypto.randomUUID(), {
                    name: item.name,
                    note: item.description,
                    itemId: item.id,
                    cost: item.cost,
                    prices: { ...item.prices, [offer.currency]: priceIn(item, null, offer.currency) },
                    taxClass: item.taxClass,
                    options: option ? item.options.map(optionOf) : [],
                  }),
                ],
              });
            }}
          />
          <Button look="link" opens onClick={() => set({ items: [...offer.items, newOfferItem(crypto.randomUUID())] })}>
            Add an item
          </Button>
        </div>
      ) : null}
    </div>
  );
}

/** Suggested amounts, bounds, purposes: for what the payer decides. */
function Amounts({ of, currencies }: { of: OfferEditing; currencies: readonly string[] }) {
  const { offer, set, troubles } = of;
  const amounts = [...offer.amounts, ''].slice(0, MOST_SUGGESTIONS);
  return (
    <div className="grid gap-4">
      <fieldset>
        <legend className="label mb-1">Suggested amounts in {offer.currency}, one of them chosen at first</legend>
        <div className="flex flex-wrap gap-2">
          {amounts.map((amount, at) => (
            <span key={at} className="flex items-center gap-1">
              <NumberInput
                aria-label={`Suggested amount ${at + 1}`}
                className="input !w-[84px] text-right"
                value={amount}
                aria-invalid={troubles[`amounts.${at}`] ? true : undefined}
                onChange={(event) => {
                  const next = [...offer.amounts];
                  if (event.target.value.trim()) next[at] = event.target.value;
                  else next.splice(at, 1);
                  set({ amounts: next, chosen: offer.chosen < next.length ? offer.chosen : -1 });
                }}
              />
              <Radio
                name="chosen"
                aria-label={`Suggested amount ${at + 1} is chosen at first`}
                disabled={at >= offer.amounts.length}
                checked={offer.chosen === at && at < offer.amounts.length}
                onChange={() => set({ chosen: at })}
              />
            </span>
          ))}
        </div>
        {troubles.amounts ? <FieldError>{troubles.amounts}</FieldError> : null}
      </fieldset>
      <TickField
        label="The payer may write another amount"
        checked={offer.ownAmount}
        onChange={(event) => set({ ownAmount: event.target.checked })}
      />
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <PriceFields
          label="Least"
          prices={offer.least}
          currencies={currencies}
          path="least"
          troubles={troubles}
          onChange={(least) => set({ least })}
        />
        <PriceFields
          label="Most"
          prices={offer.most}
          currencies={currencies}
          path="most"
          troubles={troubles}
          onChange={(most) => set({ most })}
        />
      </div>
      {offer.kind === 'donation' ? (
        <div>
          <label className="label mb-1" htmlFor="purposes">
            Purposes to choose from, one a line
          </label>
          <textarea
            id="purposes"
            rows={3}
            className="input py-2 [field-sizing:content]"
            value={offer.purposes.join('\n')}
            onChange={(event) =>
              set({
                purposes: event.target.value
                  .split('\n')
                  .slice(0, 30)
                  .map((line) => line.slice(0, 120)),
              })
            }
            onBlur={() => set({ purposes: offer.purposes.map((line) => line.trim()).filter(Boolean) })}
          />
        </div>
      ) : null}
    </div>
  );
}

/** What is asked for: the kind, and its prices. */
export function OfferWhat({ of, classes }: Props) {
  const { offer, set, troubles } = of;
  const currencies = [...new Set([offer.currency, ...offer.currencies])].filter(Boolean);
  return (
    <div className="grid gap-4">
      <fieldset>
        <legend className="label mb-1">What do you ask for?</legend>
        <div className="segment flex-wrap">
          {Object.entries(KIND_WORDS).map(([kind, { name }]) => (
            <button
              key={kind}
              type="button"
              aria-pressed={offer.kind === kind}
              data-state={offer.kind === kind ? 'on' : 'off'}
              onClick={() => set(kindChange(offer, kind as OfferKind))}
            >
              {name}
            </button>
          ))}
        </div>
        <p className="small mt-1 text-soft">{KIND_WORDS[offer.kind].about}</p>
      </fieldset>
      {offer.kind === 'sum' ? (
        <div className="flex flex-wrap items-start gap-3">
          <PriceFields
            label="Price"
            prices={offer.prices}
            currencies={currencies}
            path="prices"
            troubles={troubles}
            onChange={(prices) => set({ prices })}
          />
          <SelectField
            label="Tax class"
            className="w-[120px]"
            value={offer.taxClass}
            onChange={(event) => set({ taxClass: event.target.value })}
          >
            {[...new Set([...classes, offer.taxClass])].map((one) => (
              <option key={one}>{one}</option>
            ))}
          </SelectField>
        </div>
      ) : null}
      {offer.kind === 'items' ? <Items of={of} classes={classes} currencies={currencies} /> : null}
      {offer.kind === 'open' || offer.kind === 'donation' ? <Amounts of={of} currencies={currencies} /> : null}
    </div>
  );
}

/** Another kind begins with what it needs; what was written for the others stays. */
const kindChange = (offer: Offer, kind: OfferKind): Partial<Offer> =>
  kind === 'items' && offer.items.length === 0
    ? { kind, items: [newOfferItem(crypto.randomUUID(), { name: offer.title, prices: offer.prices })] }
    : { kind };
