'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type Item, type ItemOption, stockKey, UNITS, type Unit } from '@/core/item/item';
import { available, isLow } from '@/core/item/stock';
import { UNIT_SIGNS } from '../composer/line-row';
import { upload } from '../composer/paper-after';
import { Field, FieldError, SelectField, TextField, TickField } from '../field';
import { FileDrop } from '../import/file-drop';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';

const KINDS = { goods: 'Goods', digital: 'Digital', service: 'Service' } as const;

const blank = (): Omit<Item, 'id'> => ({
  code: '',
  name: '',
  description: '',
  kind: 'goods',
  unit: 'piece',
  prices: {},
  cost: '',
  taxClass: 'standard',
  onHand: null,
  lowAt: null,
  pictureId: null,
  options: [],
});

/** What can still be promised, in words; a count that cannot be read says nothing. */
function stockWords(onHand: string | null, promised: string | undefined): string {
  if (onHand === null || !/^-?\d+(\.\d{1,4})?$/.test(onHand)) return '';
  return promised ? `${promised} promised, ${available(onHand, promised)} available` : '';
}

/** Prices in one currency or several: the business's own first. */
function Prices({
  prices,
  currency,
  label,
  onChange,
}: {
  prices: Readonly<Record<string, string>>;
  currency: string;
  label: string;
  onChange: (prices: Record<string, string>) => void;
}) {
  const [adding, setAdding] = useState('');
  const codes = [...new Set([currency, ...Object.keys(prices)])];
  const set = (code: string, price: string) => {
    const { [code]: _, ...rest } = prices;
    onChange(price.trim() || code !== currency ? { ...rest, [code]: price } : rest);
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      {codes.map((code) => (
        <Field
          key={code}
          label={`${label} in ${code}`}
          className="w-[128px]"
          inputMode="decimal"
          value={prices[code] ?? ''}
          onChange={(event) => set(code, event.target.value)}
        />
      ))}
      <span className="flex items-end gap-1">
        <input
          aria-label="Another currency"
          placeholder="EUR"
          maxLength={3}
          className="input !w-[64px]"
          value={adding}
          onChange={(event) => setAdding(event.target.value.toUpperCase())}
        />
        <button
          type="button"
          className="btn"
          disabled={!/^[A-Z]{3}$/.test(adding) || codes.includes(adding)}
          onClick={() => {
            onChange({ ...prices, [adding]: '' });
            setAdding('');
          }}
        >
          Add currency
        </button>
      </span>
    </div>
  );
}

/** An item whole: what it is, what it costs, in which ways it comes, how many there are. */
export function ItemForm({
  item,
  currency,
  classes,
  promised,
  mayAsk,
}: {
  item: Item | null;
  currency: string;
  classes: readonly string[];
  promised: Readonly<Record<string, string>>;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [fields, setFields] = useState<Omit<Item, 'id'>>(item ?? blank());
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<Omit<Item, 'id'>>) => setFields((before) => ({ ...before, ...part }));
  const setOption = (id: string, part: Partial<ItemOption>) =>
    set({ options: fields.options.map((one) => (one.id === id ? { ...one, ...part } : one)) });

  async function keep() {
    setBusy(true);
    const { id: _, ...body } = { id: '', ...fields };
    const filled = {
      ...body,
      prices: Object.fromEntries(Object.entries(body.prices).filter(([, price]) => price.trim())),
      options: body.options.map((option) => ({
        ...option,
        prices: Object.fromEntries(Object.entries(option.prices).filter(([, price]) => price.trim())),
      })),
    };
    const answer = item
      ? await send<Item>('PUT', `/api/items/${item.id}`, filled)
      : await send<Item>('POST', '/api/items', filled);
    setBusy(false);
    if (!answer.ok) {
      setTroubles(Object.fromEntries(answer.fields.map(({ field, words }) => [field, words])));
      return setTrouble(troubleOf(answer));
    }
    setTroubles({});
    setTrouble('');
    say(item ? 'The changes are kept' : `${answer.value.name} is kept`);
    if (!item) router.push(`/records/items/${answer.value.id}` as Route);
    router.refresh();
  }

  async function remove() {
    if (!item) return;
    const answer = await send('DELETE', `/api/items/${item.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    router.push('/records/items');
    router.refresh();
    say(`${item.name} is taken off the list`);
  }

  async function picture(file: File) {
    const answer = await upload(file, 'picture');
    if (answer.ok) set({ pictureId: answer.value.id });
    else sayTrouble(answer.words);
  }

  const kept = fields.onHand !== null || fields.options.some(({ onHand }) => onHand !== null);
  return (
    <article className="sheet max-w-[760px] px-7 py-5" aria-label={item?.name ?? 'A new item'}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <fieldset disabled={!mayAsk} className="grid gap-4">
          <legend className="sr-only">The item</legend>
          <div className="flex flex-wrap items-baseline gap-4">
            <h1 className="title-screen min-w-0 flex-1 break-words">{item?.name ?? 'A new item'}</h1>
            {item && mayAsk ? (
              <button type="button" className="link" onClick={() => void remove()}>
                Take off the list
              </button>
            ) : null}
            <button type="submit" className="btn btn-go" disabled={busy || !mayAsk}>
              {busy ? 'Keeping' : item ? 'Keep changes' : 'Keep item'}
            </button>
          </div>
          {trouble ? <FieldError>{trouble}</FieldError> : null}
          <div className="grid gap-4 sm:grid-cols-[2fr_1fr]">
            <Field
              label="Name"
              value={fields.name}
              maxLength={160}
              error={troubles.name}
              onChange={(event) => set({ name: event.target.value })}
            />
            <Field
              label="Code"
              value={fields.code}
              maxLength={40}
              error={troubles.code}
              onChange={(event) => set({ code: event.target.value })}
            />
          </div>
          <TextField
            label="Description"
            value={fields.description}
            maxLength={1000}
            hint="Stands below the line on invoices."
            onChange={(event) => set({ description: event.target.value })}
          />
          <div className="grid gap-4 sm:grid-cols-4">
            <SelectField
              label="Kind"
              value={fields.kind}
              onChange={(event) => set({ kind: event.target.value as Item['kind'] })}
            >
              {Object.entries(KINDS).map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Counted in"
              value={fields.unit}
              onChange={(event) => set({ unit: event.target.value as Unit })}
            >
              {UNITS.map((unit) => (
                <option key={unit} value={unit}>
                  {UNIT_SIGNS[unit]}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Tax class"
              value={fields.taxClass}
              onChange={(event) => set({ taxClass: event.target.value })}
            >
              {[...new Set([...classes, fields.taxClass])].map((one) => (
                <option key={one} value={one}>
                  {one}
                </option>
              ))}
            </SelectField>
            <Field
              label={`Cost in ${currency}`}
              value={fields.cost}
              inputMode="decimal"
              error={troubles.cost}
              hint="Only seen here."
              onChange={(event) => set({ cost: event.target.value })}
            />
          </div>
          <Prices label="Price" prices={fields.prices} currency={currency} onChange={(prices) => set({ prices })} />
          {fields.options.length === 0 ? (
            <div className="flex flex-wrap items-end gap-4">
              <TickField
                label="Keep its stock"
                checked={fields.onHand !== null}
                onChange={(event) => set({ onHand: event.target.checked ? '0' : null, lowAt: null })}
              />
              {fields.onHand === null ? null : (
                <>
                  <Field
                    label="On hand"
                    className="w-[110px]"
                    value={fields.onHand}
                    error={troubles.onHand}
                    onChange={(event) => set({ onHand: event.target.value })}
                  />
                  <Field
                    label="Low at"
                    className="w-[110px]"
                    value={fields.lowAt ?? ''}
                    error={troubles.lowAt}
                    onChange={(event) => set({ lowAt: event.target.value || null })}
                  />
                  <span className="pb-2 text-soft">
                    {item ? stockWords(item.onHand, promised[stockKey(item.id, null)]) : ''}
                    {item && isLow(item) ? <b className="ml-2 font-medium text-ochre">Low stock</b> : null}
                  </span>
                </>
              )}
            </div>
          ) : null}

          <div>
            <h2 className="title-section border-b border-ink pb-1">Options</h2>
            {fields.options.map((option, at) => (
              <div
                key={option.id}
                className="grid items-end gap-3 border-b border-rule py-2.5 sm:grid-cols-[1.4fr_1fr_100px_84px_84px_auto]"
              >
                <Field
                  label="Name"
                  value={option.name}
                  maxLength={80}
                  placeholder="Size, gauge …"
                  error={troubles[`options.${at}.name`]}
                  onChange={(event) => setOption(option.id, { name: event.target.value })}
                />
                <Field
                  label="Code"
                  value={option.code}
                  maxLength={40}
                  onChange={(event) => setOption(option.id, { code: event.target.value })}
                />
                <Field
                  label={currency}
                  value={option.prices[currency] ?? ''}
                  placeholder={fields.prices[currency] ?? ''}
                  inputMode="decimal"
                  error={troubles[`options.${at}.prices`]}
                  onChange={(event) =>
                    setOption(option.id, { prices: { ...option.prices, [currency]: event.target.value } })
                  }
                />
                <Field
                  label="On hand"
                  value={option.onHand ?? ''}
                  placeholder="not kept"
                  onChange={(event) => setOption(option.id, { onHand: event.target.value || null })}
                />
                <Field
                  label="Low at"
                  value={option.lowAt ?? ''}
                  onChange={(event) => setOption(option.id, { lowAt: event.target.value || null })}
                />
                <button
                  type="button"
                  className="link pb-2"
                  onClick={() => set({ options: fields.options.filter(({ id }) => id !== option.id) })}
                >
                  Remove
                </button>
                {item && stockWords(option.onHand, promised[stockKey(item.id, option.id)]) ? (
                  <p className="small text-soft sm:col-span-6">
                    {stockWords(option.onHand, promised[stockKey(item.id, option.id)])}
                  </p>
                ) : null}
                {isReadable(option) && isLow(option) ? (
                  <p className="small font-medium text-ochre sm:col-span-6">Low stock</p>
                ) : null}
              </div>
            ))}
            <button
              type="button"
              className="link mt-2"
              onClick={() =>
                set({
                  options: [
                    ...fields.options,
                    {
                      id: crypto.randomUUID(),
                      name: '',
                      code: '',
                      prices: {},
                      onHand: kept ? '0' : null,
                      lowAt: null,
                    },
                  ],
                  onHand: null,
                  lowAt: null,
                })
              }
            >
              Add an option
            </button>
          </div>
          <div className="flex flex-wrap items-center gap-4">
            {fields.pictureId ? (
              <>
                {/* biome-ignore lint/performance/noImgElement: a picture of the business's own, already small */}
                <img
                  src={`/files/own/${fields.pictureId}`}
                  alt={fields.name}
                  className="h-24 w-auto border border-rule"
                />
                <button type="button" className="link" onClick={() => set({ pictureId: null })}>
                  Without a picture
                </button>
              </>
            ) : mayAsk ? (
              <FileDrop label="Add a picture" accept="image/png,image/jpeg,image/webp,image/gif" onFile={picture} />
            ) : null}
          </div>
        </fieldset>
      </form>
    </article>
  );
}

const isReadable = ({ onHand, lowAt }: ItemOption): boolean =>
  [onHand, lowAt].every((count) => count === null || /^-?\d+(\.\d{1,4})?$/.test(count));
