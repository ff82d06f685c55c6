'use client';
import { type FrontChoice, type Fronts, offered } from '@/core/front/front';
import { Select, SelectField } from '../kit/select';

/** Under which name, and from which place, something is asked for; nothing where the business has no others. */
export function FrontFields({
  house,
  chosen,
  look = 'input',
  className = '',
  disabled = false,
  onChange,
}: {
  house: Fronts & { readonly name: string };
  chosen: FrontChoice;
  /** `blank`: in a line, as on paper. */
  look?: 'input' | 'blank';
  className?: string;
  disabled?: boolean;
  onChange: (chosen: { tradingNameId: string | null } | { locationId: string | null }) => void;
}) {
  const names = offered(house.tradingNames, chosen.tradingNameId);
  const locations = offered(house.locations, chosen.locationId);
  if (names.length === 0 && locations.length === 0) return null;
  const choices = [
    {
      label: 'As',
      all: names,
      own: house.name,
      value: chosen.tradingNameId ?? '',
      choose: (id: string | null) => onChange({ tradingNameId: id }),
    },
    {
      label: 'From',
      all: locations,
      own: 'the business’s address',
      value: chosen.locationId ?? '',
      choose: (id: string | null) => onChange({ locationId: id }),
    },
  ].filter(({ all }) => all.length > 0);
  return (
    <div className={`flex flex-wrap gap-x-5 gap-y-2 ${className}`}>
      {choices.map(({ label, all, own, value, choose }) => {
        const options = [
          <option key="" value="">
            {own}
          </option>,
          ...all.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          )),
        ];
        return look === 'blank' ? (
          <span key={label} className="flex items-baseline gap-1.5">
            <span className="text-soft">{label}</span>
            <Select
              look="blank"
              aria-label={label === 'As' ? 'Under which name' : 'From which place'}
              value={value}
              disabled={disabled}
              onChange={(event) => choose(event.target.value || null)}
            >
              {options}
            </Select>
          </span>
        ) : (
          <SelectField
            key={label}
            className="min-w-[180px] flex-1"
            label={label === 'As' ? 'Under which name' : 'From which place'}
            value={value}
            disabled={disabled}
            onChange={(event) => choose(event.target.value || null)}
          >
            {options}
          </SelectField>
        );
      })}
    </div>
  );
}
