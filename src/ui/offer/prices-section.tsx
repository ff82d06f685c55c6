'use client';
import { useState } from 'react';
import { isCurrency } from '@/core/money/currency';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { SelectField } from '../kit/select';
import { Collapsible } from './collapsible';
import { PriceFields } from './price-fields';
import { type OfferEditing } from './use-offer';

/** Further currencies, tips, codes, and whether prices hold the tax. */
export function PricesSection({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  const [adding, setAdding] = useState('');
  const now = [
    offer.currencies.length > 0 ? `also in ${offer.currencies.join(', ')}` : '',
    offer.codes ? 'discount codes' : '',
    offer.tip ? 'a tip' : '',
  ].filter(Boolean);
  return (
    <Collapsible name="Currencies, codes, tip" now={now.join(' · ') || 'nothing yet'}>
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
        <Button
          disabled={!isCurrency(adding) || adding === offer.currency || offer.currencies.includes(adding)}
          onClick={() => {
            set({ currencies: [...offer.currencies, adding] });
            setAdding('');
          }}
        >
          Add currency
        </Button>
        {offer.currencies.map((code) => (
          <Button
            key={code}
            look="link"
            onClick={() => set({ currencies: offer.currencies.filter((one) => one !== code) })}
          >
            Remove {code}
          </Button>
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
    </Collapsible>
  );
}
