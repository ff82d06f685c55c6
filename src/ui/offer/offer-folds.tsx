'use client';
import { Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { isCurrency } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { fillTime } from '@/core/offer/fields';
import { type Asked, FIELD_KINDS, type FieldKind, MOST_FIELDS, type Offer, type OfferField } from '@/core/offer/offer';
import { priceMinor } from '@/core/offer/price';
import { countryName } from '@/core/place/address';
import { split } from '@/core/share/split';
import { Field, FieldError, SelectField, TextField, TickField } from '../field';
import { Leader } from '../leader';
import { PriceFields } from './price-fields';
import type { OfferEditing } from './use-offer';

/** A part of the composer that folds out; what it holds now stands beside its name. */
export function Fold({
  name,
  now,
  open,
  children,
}: {
  name: string;
  now: string;
  open?: boolean;
  children: ReactNode;
}) {
  return (
    <details className="border-b border-rule" open={open}>
      <summary className="flex min-h-11 items-baseline gap-3 py-2.5">
        <span className="font-serif text-[16.5px]/6 font-medium">{name}</span>
        <span className="min-w-0 flex-1 truncate text-soft">{now}</span>
      </summary>
      <div className="grid gap-4 pb-5 pt-1">{children}</div>
    </details>
  );
}

const ASKED_WORDS: Readonly<Record<Asked, string>> = { no: 'not asked', may: 'if they like', must: 'needed' };
const KINDS: Readonly<Record<FieldKind, string>> = {
  text: 'A text',
  number: 'A number',
  choice: 'A choice',
  date: 'A day',
  tick: 'A box to tick',
  file: 'A file',
};

function AskedChoice({ label, value, onChange }: { label: string; value: Asked; onChange: (value: Asked) => void }) {
  return (
    <SelectField
      label={label}
      className="w-[150px]"
      value={value}
      onChange={(event) => onChange(event.target.value as Asked)}
    >
      {Object.entries(ASKED_WORDS).map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </SelectField>
  );
}

/** One question of the business's own. */
function OwnQuestion({ field, at, of }: { field: OfferField; at: number; of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const change = (part: Partial<OfferField>) =>
    set({ fields: offer.fields.map((one) => (one.id === field.id ? { ...one, ...part } : one)) });
  return (
    <li className="grid gap-3 border-b border-rule py-3">
      <div className="flex flex-wrap items-start gap-3">
        <Field
          label="Question"
          className="min-w-[180px] flex-1"
          value={field.label}
          maxLength={120}
          error={troubles[`fields.${at}.label`]}
          onChange={(event) => change({ label: event.target.value })}
        />
        <SelectField
          label="Answer"
          className="w-[130px]"
          value={field.kind}
          onChange={(event) => change({ kind: event.target.value as FieldKind })}
        >
          {FIELD_KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {KINDS[kind]}
            </option>
          ))}
        </SelectField>
        <button
          type="button"
          className="mt-6 grid size-8 place-items-center text-soft hover:text-ink"
          aria-label={`Take “${field.label || 'this question'}” away`}
          onClick={() => set({ fields: offer.fields.filter(({ id }) => id !== field.id) })}
        >
          <Trash2 size={15} strokeWidth={1.5} aria-hidden="true" />
        </button>
      </div>
      <Field
        label="Help below it"
        value={field.help}
        maxLength={300}
        onChange={(event) => change({ help: event.target.value })}
      />
      {field.kind === 'choice' ? (
        <TextField
          label="Answers to choose from, one a line"
          value={field.choices.join('\n')}
          error={troubles[`fields.${at}.choices`]}
          onChange={(event) => change({ choices: event.target.value.split('\n').slice(0, 40) })}
          onBlur={() => change({ choices: field.choices.map((line) => line.trim()).filter(Boolean) })}
        />
      ) : null}
      <div className="flex flex-wrap gap-6">
        <TickField
          label="Needed"
          checked={field.required}
          onChange={(event) => change({ required: event.target.checked })}
        />
        <TickField
          label="Stands on the receipt"
          checked={field.onReceipt}
          onChange={(event) => change({ onReceipt: event.target.checked })}
        />
      </div>
    </li>
  );
}

const timeWords = (seconds: number): string =>
  seconds < 60 ? `about ${seconds} seconds to fill in` : `about ${Math.round(seconds / 30) / 2} minutes to fill in`;

/** What the payer is asked. */
export function AskedFold({ of, terms }: { of: OfferEditing; terms: readonly { id: string; name: string }[] }) {
  const { offer, set } = of;
  const time = fillTime(offer);
  return (
    <Fold name="What the payer is asked" now={timeWords(time.seconds)}>
      <p className={time.long ? 'font-medium text-ochre' : 'text-soft'}>
        Name and e-mail address always.{' '}
        {time.long
          ? `The form takes ${timeWords(time.seconds)}: many will leave it. Ask only for what you need.`
          : `The form takes ${timeWords(time.seconds)}.`}
      </p>
      <div className="flex flex-wrap gap-3">
        <AskedChoice label="Phone" value={offer.phone} onChange={(phone) => set({ phone })} />
        <AskedChoice label="Billing address" value={offer.billing} onChange={(billing) => set({ billing })} />
      </div>
      <TickField
        label="They may write you a message"
        checked={offer.message}
        onChange={(event) => set({ message: event.target.checked })}
      />
      {terms.length > 0 ? (
        <SelectField
          label="Terms to accept"
          className="w-[260px]"
          value={offer.termsId ?? ''}
          onChange={(event) => set({ termsId: event.target.value || null })}
        >
          <option value="">none</option>
          {terms.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      <ul className="border-t border-rule">
        {offer.fields.map((field, at) => (
          <OwnQuestion key={field.id} field={field} at={at} of={of} />
        ))}
      </ul>
      {offer.fields.length < MOST_FIELDS ? (
        <button
          type="button"
          className="link justify-self-start"
          onClick={() =>
            set({
              fields: [
                ...offer.fields,
                {
                  id: crypto.randomUUID(),
                  kind: 'text',
                  label: '',
                  help: '',
                  required: false,
                  choices: [],
                  onReceipt: false,
                },
              ],
            })
          }
        >
          Ask something of your own
        </button>
      ) : null}
    </Fold>
  );
}

/** Further currencies, tips, codes, and whether prices hold the tax. */
export function PricesFold({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const [adding, setAdding] = useState('');
  const now = [
    offer.currencies.length > 0 ? `also in ${offer.currencies.join(', ')}` : '',
    offer.codes ? 'discount codes' : '',
    offer.tip ? 'a tip' : '',
  ].filter(Boolean);
  return (
    <Fold name="Currencies, codes, tip" now={now.join(' · ') || 'nothing yet'}>
      <div className="flex flex-wrap items-end gap-3">
        <Field
          label="Another currency"
          className="w-[110px]"
          maxLength={3}
          placeholder="EUR"
          value={adding}
          error={troubles.currencies}
          onChange={(event) => setAdding(event.target.value.toUpperCase())}
        />
        <button
          type="button"
          className="btn"
          disabled={!isCurrency(adding) || adding === offer.currency || offer.currencies.includes(adding)}
          onClick={() => {
            set({ currencies: [...offer.currencies, adding] });
            setAdding('');
          }}
        >
          Add currency
        </button>
        {offer.currencies.map((code) => (
          <button
            key={code}
            type="button"
            className="link"
            onClick={() => set({ currencies: offer.currencies.filter((one) => one !== code) })}
          >
            Take {code} away
          </button>
        ))}
      </div>
      <p className="small text-soft">
        A price that you leave open in another currency is converted at the day’s reference rate, and holds for 30
        minutes once a payer has seen it.
      </p>
      <PriceFields
        label="Smallest payment"
        prices={offer.smallest}
        currencies={[...new Set([offer.currency, ...offer.currencies])]}
        path="smallest"
        troubles={troubles}
        onChange={(smallest) => set({ smallest })}
      />
      {offer.kind === 'donation' || offer.kind === 'open' ? null : (
        <SelectField
          label="Prices"
          className="w-[220px]"
          value={offer.pricesIncludeTax === null ? '' : offer.pricesIncludeTax ? 'with' : 'without'}
          onChange={(event) =>
            set({ pricesIncludeTax: event.target.value === '' ? null : event.target.value === 'with' })
          }
        >
          <option value="">as the business usually has them</option>
          <option value="without">without tax</option>
          <option value="with">with tax inside</option>
        </SelectField>
      )}
      <TickField
        label="Discount codes can be used"
        hint="The codes themselves are kept under Records."
        checked={offer.codes}
        onChange={(event) => set({ codes: event.target.checked })}
      />
      <TickField
        label="Ask for a tip"
        hint="Suggested are 5, 10 and 15 percent."
        checked={offer.tip !== null}
        onChange={(event) => set({ tip: event.target.checked ? ['5', '10', '15'] : null })}
      />
    </Fold>
  );
}

/** Where it is delivered to, at which price. */
export function DeliveryFold({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const { delivery } = offer;
  const currencies = [...new Set([offer.currency, ...offer.currencies])];
  const zone = () => ({ id: crypto.randomUUID(), name: '', countries: [], prices: {} });
  return (
    <Fold
      name="Delivery"
      now={
        delivery ? delivery.zones.map(({ countries }) => countries.join(', ') || 'everywhere else').join(' · ') : 'none'
      }
    >
      <TickField
        label="It is sent to the payer"
        hint="They are asked for an address."
        checked={delivery !== null}
        onChange={(event) => set({ delivery: event.target.checked ? { zones: [zone()], freeFrom: {} } : null })}
      />
      {troubles.delivery ? <FieldError>{troubles.delivery}</FieldError> : null}
      {delivery ? (
        <>
          {delivery.zones.map((one, at) => {
            const change = (part: Partial<typeof one>) =>
              set({
                delivery: {
                  ...delivery,
                  zones: delivery.zones.map((each) => (each.id === one.id ? { ...each, ...part } : each)),
                },
              });
            return (
              <div key={one.id} className="flex flex-wrap items-start gap-3 border-b border-rule pb-3">
                <Field
                  label="Countries, as codes"
                  className="min-w-[180px] flex-1"
                  placeholder="everywhere else"
                  defaultValue={one.countries.join(', ')}
                  hint={
                    one.countries.map((code) => countryName(code, 'en')).join(', ') ||
                    'Everywhere that no other line names.'
                  }
                  onChange={(event) =>
                    change({ countries: [...new Set(event.target.value.toUpperCase().match(/\b[A-Z]{2}\b/g) ?? [])] })
                  }
                />
                <PriceFields
                  label="Price"
                  prices={one.prices}
                  currencies={currencies}
                  path={`delivery.zones.${at}.prices`}
                  troubles={troubles}
                  onChange={(prices) => change({ prices })}
                />
                <button
                  type="button"
                  className="link link-small mt-7"
                  onClick={() =>
                    set({ delivery: { ...delivery, zones: delivery.zones.filter(({ id }) => id !== one.id) } })
                  }
                >
                  Take away
                </button>
              </div>
            );
          })}
          <button
            type="button"
            className="link justify-self-start"
            onClick={() => set({ delivery: { ...delivery, zones: [...delivery.zones, zone()] } })}
          >
            Add a zone
          </button>
          <PriceFields
            label="Free from"
            prices={delivery.freeFrom}
            currencies={currencies}
            path="delivery.freeFrom"
            troubles={troubles}
            onChange={(freeFrom) => set({ delivery: { ...delivery, freeFrom } })}
          />
        </>
      ) : null}
    </Fold>
  );
}

/** How long and how often it can be paid. */
export function LimitsFold({ of }: { of: OfferEditing }) {
  const { offer, set } = of;
  const now = [
    offer.mostPayments === null ? '' : `${offer.mostPayments} payments`,
    offer.lastOn ? `until ${offer.lastOn}` : '',
  ].filter(Boolean);
  return (
    <Fold name="Limits" now={now.join(' · ') || 'none'}>
      <div className="flex flex-wrap items-start gap-4">
        <Field
          label="At most so many payments"
          className="w-[190px]"
          inputMode="numeric"
          value={offer.mostPayments ?? ''}
          onChange={(event) =>
            set({ mostPayments: /^[1-9]\d{0,6}$/.test(event.target.value) ? Number(event.target.value) : null })
          }
        />
        <Field
          label="Last day"
          type="date"
          className="w-[170px]"
          value={offer.lastOn}
          onChange={(event) => set({ lastOn: event.target.value })}
        />
      </div>
      <p className="small text-soft">
        What is on stock is a limit too: items from Records are never sold beyond what is there. A payment that is on
        its way when the offer ends is still taken.
      </p>
    </Fold>
  );
}

/** What happens once it is paid. */
export function AfterFold({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  return (
    <Fold
      name="Afterwards"
      now={
        offer.redirect ? 'leads on to your website' : offer.thanks ? 'your own thanks' : 'our thanks and the receipt'
      }
    >
      <TextField
        label="Words of thanks"
        value={offer.thanks}
        maxLength={2000}
        onChange={(event) => set({ thanks: event.target.value })}
      />
      <Field
        label="Leads on to"
        placeholder="https://www.shop.example/thanks"
        value={offer.redirect}
        error={troubles.redirect}
        hint="With the order’s reference, amount and a signature, so that your website can trust it."
        onChange={(event) => set({ redirect: event.target.value.trim() })}
      />
      <Field
        label="Whoever turns back goes to"
        placeholder="https://www.shop.example"
        value={offer.turnedBack}
        error={troubles.turnedBack}
        onChange={(event) => set({ turnedBack: event.target.value.trim() })}
      />
      <Field
        label="Also tell"
        placeholder="front@shop.example, teacher@shop.example"
        defaultValue={offer.notify.join(', ')}
        error={Object.entries(troubles).find(([field]) => field.startsWith('notify'))?.[1]}
        onBlur={(event) =>
          set({
            notify: event.target.value
              .split(/[,;\s]+/)
              .map((one) => one.trim())
              .filter(Boolean),
          })
        }
      />
      <SelectField
        label="Receipt"
        className="w-[240px]"
        value={offer.receipt}
        onChange={(event) => set({ receipt: event.target.value as Offer['receipt'] })}
      >
        <option value="auto">goes out by itself</option>
        <option value="hand">I send it by hand</option>
      </SelectField>
    </Fold>
  );
}

const EXAMPLE_MINOR = 10_000n;

/** Who shares in the payments, with what each gets of an example. */
export function ShareFold({
  of,
  partners,
  locale,
}: {
  of: OfferEditing;
  partners: readonly { id: string; name: string }[];
  locale: string;
}) {
  const { offer, set, troubles } = of;
  const terms = offer.split;
  const { currency } = offer;
  // 2.9 percent and 0.30, as the processor has it.
  const fee = 320n;
  const text = (minor: bigint) => moneyText(money(minor, currency), locale);
  let parts: ReturnType<typeof split> | null = null;
  try {
    const keep = terms?.keep ? priceMinor(terms.keep, currency) : null;
    if (terms && terms.partners.length > 0)
      parts = split({
        amount: EXAMPLE_MINOR,
        fee,
        partners: terms.partners,
        ...(keep === null ? {} : { keep }),
        feeFrom: terms.feeFrom,
      });
  } catch {
    parts = null;
  }
  const change = (part: Partial<NonNullable<typeof terms>>) =>
    set({ split: { partners: [], keep: '', feeFrom: 'business', ...terms, ...part } });
  const open = partners.filter(({ id }) => !terms?.partners.some(({ partnerId }) => partnerId === id));
  return (
    <Fold
      name="Sharing"
      now={
        terms && terms.partners.length > 0
          ? `${terms.partners.length} partner${terms.partners.length === 1 ? '' : 's'}`
          : 'you get it all'
      }
    >
      {partners.length === 0 ? (
        <p className="text-soft">Partners are kept under Records. Add one there, then share with them here.</p>
      ) : null}
      {(terms?.partners ?? []).map((one) => (
        <div key={one.partnerId} className="flex flex-wrap items-end gap-3">
          <Field
            label={`${partners.find(({ id }) => id === one.partnerId)?.name ?? 'A former partner'}, percent`}
            className="w-[240px]"
            inputMode="decimal"
            value={one.percent}
            onChange={(event) =>
              change({
                partners: (terms?.partners ?? []).map((each) =>
                  each.partnerId === one.partnerId ? { ...each, percent: event.target.value } : each,
                ),
              })
            }
          />
          <button
            type="button"
            className="link link-small mb-2"
            onClick={() => {
              const left = (terms?.partners ?? []).filter(({ partnerId }) => partnerId !== one.partnerId);
              if (left.length === 0) set({ split: null });
              else change({ partners: left });
            }}
          >
            Take away
          </button>
        </div>
      ))}
      {troubles.split ? <FieldError>{troubles.split}</FieldError> : null}
      {open.length > 0 ? (
        <SelectField
          label="Share with"
          className="w-[240px]"
          value=""
          onChange={(event) =>
            change({ partners: [...(terms?.partners ?? []), { partnerId: event.target.value, percent: '10' }] })
          }
        >
          <option value="">choose a partner</option>
          {open.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </SelectField>
      ) : null}
      {terms && terms.partners.length > 0 ? (
        <>
          <div className="flex flex-wrap gap-3">
            <Field
              label={`You keep a flat amount, ${currency}`}
              className="w-[210px]"
              inputMode="decimal"
              placeholder="no"
              value={terms.keep}
              hint="The partners then share the rest."
              onChange={(event) => change({ keep: event.target.value.trim() })}
            />
            <SelectField
              label="The processing fee is borne by"
              className="w-[210px]"
              value={terms.feeFrom}
              onChange={(event) => change({ feeFrom: event.target.value as 'business' | 'all' })}
            >
              <option value="business">you</option>
              <option value="all">all, in proportion</option>
            </SelectField>
          </div>
          {parts ? (
            <div className="document max-w-[420px] bg-wash px-4 py-3">
              <p className="small mb-1 font-sans text-soft">
                Of a payment of {text(EXAMPLE_MINOR)}, after the fee of {text(fee)}
              </p>
              <Leader label="You">{text(parts.business.net)}</Leader>
              {parts.partners.map((part, at) => (
                <Leader
                  key={terms.partners[at]?.partnerId}
                  label={partners.find(({ id }) => id === terms.partners[at]?.partnerId)?.name ?? 'A former partner'}
                >
                  {text(part.net)}
                </Leader>
              ))}
            </div>
          ) : null}
        </>
      ) : null}
    </Fold>
  );
}
