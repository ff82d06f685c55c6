'use client';
import { USUAL_CURRENCIES } from '@/core/money/currency';
import { SelectField } from './select';

/** A currency from the usual ones, with those first that are named here already. */
export function CurrencyField({
  value,
  first = [],
  disabled = false,
  onChoose,
}: {
  value: string;
  first?: readonly string[];
  disabled?: boolean;
  onChoose: (currency: string) => void;
}) {
  return (
    <SelectField label="Currency" value={value} disabled={disabled} onChange={(event) => onChoose(event.target.value)}>
      {[...new Set([value, ...first, ...USUAL_CURRENCIES])].map((code) => (
        <option key={code} value={code}>
          {code}
        </option>
      ))}
    </SelectField>
  );
}
