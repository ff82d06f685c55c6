'use client';
import { X } from 'lucide-react';
import { countryName } from '@/core/place/address';
import { usePlaces } from '../customer/use-places';
import { Button } from '../kit/button';
import { SelectField } from '../kit/select';

/** Countries, chosen one by one from all there are. @param codes ISO 3166-1 */
export function CountryChoice({
  label,
  codes,
  none,
  onChange,
}: {
  label: string;
  codes: readonly string[];
  /** What no country at all means. */
  none: string;
  onChange: (codes: readonly string[]) => void;
}) {
  const all = usePlaces('');
  return (
    <div className="min-w-[220px] flex-1">
      <SelectField
        label={label}
        value=""
        onChange={(event) => event.target.value && onChange([...codes, event.target.value])}
      >
        <option value="">Add a country</option>
        {all
          .filter(({ code }) => !codes.includes(code))
          .map((one) => (
            <option key={one.code} value={one.code}>
              {one.name}
            </option>
          ))}
      </SelectField>
      {codes.length === 0 ? (
        <p className="small mt-1 text-soft">{none}</p>
      ) : (
        <ul className="mt-1.5 flex flex-wrap gap-x-3 gap-y-1" aria-label={label}>
          {codes.map((code) => (
            <li key={code} className="flex items-center gap-1">
              {countryName(code, 'en')}
              <Button
                look="small-link"
                aria-label={`Without ${countryName(code, 'en')}`}
                onClick={() => onChange(codes.filter((one) => one !== code))}
              >
                <X size={13} strokeWidth={1.6} aria-hidden="true" />
              </Button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
