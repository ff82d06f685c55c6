'use client';
import { useState } from 'react';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';
import type { Measures } from '@/core/parcel/measure';
import type { ParcelProfile } from '@/core/parcel/profile';
import { useBusinessCurrency } from '../kit/at-desk';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { MoneyField } from '../kit/money-field';
import { usePress } from '../kit/press';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';
import { LengthField, WeightField } from '../pack/weight-field';

const BLANK: Omit<ParcelProfile, 'id'> = {
  name: '',
  lengthMm: 0,
  widthMm: 0,
  heightMm: 0,
  ownGrams: 0,
  mostGrams: 0,
  packagingMinor: 0,
  service: '',
  insuring: { kind: 'never' },
  signature: false,
};

/** A parcel profile: its box, what that weighs and costs, and how it goes. */
export function ProfileDialog({
  profile,
  services,
  measures,
  onClose,
}: {
  profile: ParcelProfile | null;
  services: readonly { readonly code: string; readonly name: string }[];
  measures: Measures;
  onClose: () => void;
}) {
  const currency = useBusinessCurrency();
  const digits = minorDigits(currency);
  const [values, setValues] = useState<Omit<ParcelProfile, 'id'>>(profile ?? BLANK);
  const [packaging, setPackaging] = useState(profile ? plainSum(BigInt(profile.packagingMinor), currency) : '');
  const [insureFrom, setInsureFrom] = useState(
    profile?.insuring.kind === 'from' ? plainSum(BigInt(profile.insuring.minor), currency) : '50',
  );
  const { busy, press } = usePress();
  const set = (part: Partial<typeof values>) => setValues({ ...values, ...part });
  const length = (label: string, key: 'lengthMm' | 'widthMm' | 'heightMm') => (
    <LengthField
      label={label}
      measures={measures}
      value={values[key]}
      onChange={(millimetres) => set({ [key]: millimetres })}
    />
  );
  return (
    <FormDialog
      title={profile ? profile.name : 'A new parcel profile'}
      about="How something is packed again and again."
      action="Save profile"
      busy={busy}
      onClose={onClose}
      onSure={async () => {
        const [costs, from] = [typedMinor(packaging, digits), typedMinor(insureFrom, digits)];
        if (costs === null) return 'Write what the packing costs as a number.';
        if (from === null) return 'Write from which worth on it is insured as a number.';
        const { name, lengthMm, widthMm, heightMm, ownGrams, mostGrams, service, signature } = values;
        const insuring =
          values.insuring.kind === 'from' ? { kind: 'from', minor: Number(from) } : { kind: values.insuring.kind };
        const body = {
          name,
          lengthMm,
          widthMm,
          heightMm,
          ownGrams,
          mostGrams,
          service,
          signature,
          insuring,
          packagingMinor: Number(costs),
        };
        const answer = profile
          ? await press(`/api/parcel-profiles/${profile.id}`, body, 'The profile is saved', 'PUT')
          : await press('/api/parcel-profiles', body, 'The profile is saved');
        if (answer.ok) onClose();
        return troubleOf(answer);
      }}
    >
      <Field
        label="Name"
        value={values.name}
        maxLength={60}
        placeholder="Padded letter, bow tube …"
        onChange={(event) => set({ name: event.target.value })}
      />
      <div className="grid gap-3 sm:grid-cols-3">
        {length('Length', 'lengthMm')}
        {length('Width', 'widthMm')}
        {length('Height', 'heightMm')}
      </div>
      <div className="grid gap-3 sm:grid-cols-3">
        <WeightField
          label="It weighs itself"
          measures={measures}
          value={values.ownGrams}
          onChange={(ownGrams) => set({ ownGrams })}
        />
        <WeightField
          label="Bears at most"
          hint="With itself; empty for what the service takes"
          measures={measures}
          value={values.mostGrams}
          onChange={(mostGrams) => set({ mostGrams })}
        />
        <MoneyField
          label="Packing costs"
          currency={currency}
          value={packaging}
          onChange={(event) => setPackaging(event.target.value)}
        />
      </div>
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectField label="Service" value={values.service} onChange={(event) => set({ service: event.target.value })}>
          <option value="">The cheapest that takes it</option>
          {services.map(({ code, name }) => (
            <option key={code} value={code}>
              {name}
            </option>
          ))}
          {values.service && !services.some(({ code }) => code === values.service) ? (
            <option value={values.service}>{values.service}</option>
          ) : null}
        </SelectField>
        <SelectField
          label="Insured"
          value={values.insuring.kind}
          onChange={({ target: { value } }) =>
            set({
              insuring:
                value === 'from'
                  ? { kind: 'from', minor: 0 }
                  : value === 'always'
                    ? { kind: 'always' }
                    : { kind: 'never' },
            })
          }
        >
          <option value="never">Never</option>
          <option value="from">From a worth on</option>
          <option value="always">Always, for what it is worth</option>
        </SelectField>
      </div>
      {values.insuring.kind === 'from' ? (
        <MoneyField
          label="From a worth of"
          currency={currency}
          value={insureFrom}
          onChange={(event) => setInsureFrom(event.target.value)}
        />
      ) : null}
      <TickField
        label="Handed over against a signature"
        checked={values.signature}
        onChange={(event) => set({ signature: event.target.checked })}
      />
    </FormDialog>
  );
}
