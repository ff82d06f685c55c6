'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { Measures } from '@/core/parcel/measure';
import type { ParcelRule } from '@/core/parcel/profile';
import { REFUSED_WORDS, type ServiceRefusal } from '@/core/parcel/service';
import { isCountryCode } from '@/core/place/address';
import { useBusinessCurrency, useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { Field, FieldError } from '../kit/field';
import { MoneyField } from '../kit/money-field';
import { send, troubleOf } from '../kit/send';
import { WeightField } from '../pack/weight-field';
import { ItemsField, type NamedItem } from './items-field';

type Tried = {
  readonly profile: string;
  readonly ruleAt: number | null;
  readonly answer: {
    readonly rates: readonly {
      readonly service: string;
      readonly name: string;
      readonly rateMinor: number;
      readonly insuranceMinor: number;
      readonly signatureMinor: number;
    }[];
    readonly refused: readonly { readonly name: string; readonly why: ServiceRefusal }[];
  } | null;
};

/** Tries the rules out on a typed example, as they stand on the screen. */
export function TryRules({
  rules,
  home,
  measures,
}: {
  rules: readonly ParcelRule[];
  home: string;
  measures: Measures;
}) {
  const currency = useBusinessCurrency();
  const locale = useDeskLocale();
  const [country, setCountry] = useState(home);
  const [postalCode, setPostalCode] = useState('');
  const [grams, setGrams] = useState(400);
  const [worth, setWorth] = useState('20');
  const [wish, setWish] = useState('');
  const [items, setItems] = useState<readonly NamedItem[]>([]);
  const [tried, setTried] = useState<Tried | null>(null);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  async function attempt() {
    const minor = typedMinor(worth, minorDigits(currency));
    if (!isCountryCode(country.toUpperCase()))
      return setTrouble('Write the country as its code of two letters, such as US.');
    if (minor === null) return setTrouble('Write the worth as a number.');
    setBusy(true);
    const answer = await send<Tried>('POST', '/api/parcel-rules/try', {
      rules,
      country: country.toUpperCase(),
      postalCode,
      grams,
      valueMinor: Number(minor),
      wish,
      itemIds: items.map(({ id }) => id),
    });
    setBusy(false);
    setTrouble(troubleOf(answer));
    setTried(answer.ok ? answer.value : null);
  }
  return (
    <div className="grid gap-3 pt-3">
      <div className="grid gap-3 sm:grid-cols-[70px_110px_1fr_1fr]">
        <Field label="Country" value={country} maxLength={2} onChange={(event) => setCountry(event.target.value)} />
        <Field
          label="Postal code"
          value={postalCode}
          maxLength={20}
          onChange={(event) => setPostalCode(event.target.value)}
        />
        <WeightField label="Weight" measures={measures} value={grams} onChange={setGrams} />
        <MoneyField
          label="Worth"
          currency={currency}
          value={worth}
          onChange={(event) => setWorth(event.target.value)}
        />
      </div>
      <div className="grid gap-3 sm:grid-cols-2">
        <ItemsField label="In it" chosen={items} onChange={setItems} />
        <Field
          label="What the customer wished"
          value={wish}
          maxLength={200}
          onChange={(event) => setWish(event.target.value)}
        />
      </div>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <p>
        <Button busy={busy} busyWords="Asking the carrier" onClick={() => void attempt()}>
          Try it
        </Button>
      </p>
      {tried ? (
        <div role="status" className="bg-wash px-4 py-3">
          <p className="document">
            {tried.profile ? (
              <>
                Goes as <b className="font-semibold">{tried.profile}</b>
                {tried.ruleAt === null ? '' : `, by rule ${tried.ruleAt + 1}`}.
              </>
            ) : (
              'No rule knows it, or no box of theirs holds it: a profile is chosen by hand.'
            )}
          </p>
          {tried.profile && !tried.answer ? (
            <p className="small text-ochre">The carrier does not answer just now.</p>
          ) : null}
          {tried.answer ? (
            <ul className="small">
              {tried.answer.rates.map((rate) => (
                <li key={rate.service}>
                  {rate.name}:{' '}
                  {moneyText(
                    money(BigInt(rate.rateMinor + rate.insuranceMinor + rate.signatureMinor), currency),
                    locale,
                  )}
                </li>
              ))}
              {tried.answer.refused.map(({ name, why }) => (
                <li key={name} className="text-soft">
                  {name}: {REFUSED_WORDS[why]}
                </li>
              ))}
            </ul>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
