'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';
import type { Measures } from '@/core/parcel/measure';
import type { ParcelRule } from '@/core/parcel/profile';
import { isCountryCode } from '@/core/place/address';
import { useBusinessCurrency } from '../kit/at-desk';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { MoneyField } from '../kit/money-field';
import { SelectField } from '../kit/select';
import { WeightField } from '../pack/weight-field';
import { ItemsField, type NamedItem } from './items-field';

/** A rule: what it looks at, and which profile it chooses. What is left empty it takes as it is. */
export function RuleDialog({
  rule,
  profiles,
  items,
  measures,
  onClose,
  onRule,
}: {
  rule: ParcelRule;
  profiles: readonly { readonly id: string; readonly name: string }[];
  items: readonly NamedItem[];
  measures: Measures;
  onClose: () => void;
  onRule: (rule: ParcelRule, items: readonly NamedItem[]) => void;
}) {
  const currency = useBusinessCurrency();
  const digits = minorDigits(currency);
  const sum = (minor: number) => (minor === 0 ? '' : plainSum(BigInt(minor), currency));
  const [values, setValues] = useState(rule);
  const [chosen, setChosen] = useState(items.filter(({ id }) => rule.itemIds.includes(id)));
  const [countries, setCountries] = useState(rule.countries.join(', '));
  const [from, setFrom] = useState(sum(rule.fromMinor));
  const [to, setTo] = useState(sum(rule.toMinor));
  const set = (part: Partial<ParcelRule>) => setValues({ ...values, ...part });
  return (
    <FormDialog
      title="When this is so, take that"
      about="The first rule that takes a parcel chooses its profile. What is left empty is as it may be."
      action="Keep rule"
      busy={false}
      onClose={onClose}
      onSure={() => {
        const codes = countries
          .split(/[\s,;]+/)
          .map((code) => code.toUpperCase())
          .filter(Boolean);
        const wrong = codes.find((code) => !isCountryCode(code));
        if (wrong) return `${wrong} is no country: write codes of two letters, such as US, CA.`;
        const [fromMinor, toMinor] = [typedMinor(from, digits), typedMinor(to, digits)];
        if (fromMinor === null || toMinor === null) return 'Write the worth as a number.';
        if (!values.profileId) return 'Choose the profile that it takes.';
        onRule(
          {
            ...values,
            countries: [...new Set(codes)],
            fromMinor: Number(fromMinor),
            toMinor: Number(toMinor),
            itemIds: chosen.map(({ id }) => id),
          },
          chosen,
        );
        return '';
      }}
    >
      <SelectField
        label="Takes the profile"
        value={values.profileId}
        onChange={(event) => set({ profileId: event.target.value })}
      >
        <option value="">Choose …</option>
        {profiles.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <Field
        label="Countries"
        value={countries}
        placeholder="everywhere, or US, CA"
        maxLength={300}
        onChange={(event) => setCountries(event.target.value)}
      />
      <TickField
        label="Only abroad"
        checked={values.abroad}
        onChange={(event) => set({ abroad: event.target.checked })}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <WeightField
          label="Weight from"
          measures={measures}
          value={values.fromGrams}
          onChange={(fromGrams) => set({ fromGrams })}
        />
        <WeightField
          label="Weight up to"
          measures={measures}
          value={values.toGrams}
          onChange={(toGrams) => set({ toGrams })}
        />
        <MoneyField
          label="Worth from"
          currency={currency}
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        <MoneyField
          label="Worth up to"
          currency={currency}
          value={to}
          onChange={(event) => setTo(event.target.value)}
        />
      </div>
      <ItemsField label="With one of these in it" chosen={chosen} onChange={setChosen} />
      <Field
        label="A word in what the customer wished"
        value={values.wish}
        maxLength={80}
        placeholder="express, gift …"
        onChange={(event) => set({ wish: event.target.value })}
      />
    </FormDialog>
  );
}
