'use client';
import {
  type ExtraRight,
  extraBeyond,
  extrasFor,
  extraWords,
  type Holds,
  isHidden,
  mayDo,
  RIGHT_WORDS,
  RIGHTS,
  ROLE_WORDS,
  ROLES,
  type Role,
} from '@/core/person/rights';
import { TickField } from '../kit/check';
import { SelectField } from '../kit/select';

/** A role, and single rights on top: what the role has already is not offered. */
export function HoldsFields({ holds, onChange }: { holds: Holds; onChange: (holds: Holds) => void }) {
  const { role, extra } = holds;
  const offered = extrasFor(role, extra);
  const tick = (right: ExtraRight, on: boolean) =>
    onChange({ role, extra: extraBeyond(role, on ? [...extra, right] : extra.filter((one) => one !== right)) });
  return (
    <div className="grid gap-3">
      <SelectField
        label="Role"
        value={role}
        onChange={({ target }) => {
          const next = target.value as Role;
          onChange({ role: next, extra: extraBeyond(next, extra) });
        }}
      >
        {ROLES.map((one) => (
          <option key={one} value={one}>
            {ROLE_WORDS[one]}
          </option>
        ))}
      </SelectField>
      {(
        [
          ['And beyond that', offered.filter((one) => !isHidden(one))],
          ['What is hidden from them', offered.filter(isHidden)],
        ] as const
      ).map(([legend, list]) =>
        list.length > 0 ? (
          <fieldset key={legend} className="grid gap-1.5">
            <legend className="label mb-1">{legend}</legend>
            {list.map((one) => (
              <TickField
                key={one}
                label={extraWords(one)}
                checked={extra.includes(one)}
                onChange={(event) => tick(one, event.target.checked)}
              />
            ))}
          </fieldset>
        ) : null,
      )}
    </div>
  );
}

/** Who may what: the list that every operation is asked against, as a table. */
export function RightsTable() {
  return (
    <table className="w-full border-collapse text-left">
      <caption className="sr-only">Who may what</caption>
      <thead>
        <tr className="border-b border-ink">
          <th scope="col" className="py-1.5 font-medium text-soft">
            May
          </th>
          {ROLES.map((role) => (
            <th key={role} scope="col" className="px-2 py-1.5 text-center font-semibold">
              {ROLE_WORDS[role]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {RIGHTS.map((right) => (
          <tr key={right} className="border-b border-rule">
            <th scope="row" className="py-1.5 pr-3 font-normal">
              {RIGHT_WORDS[right]}
            </th>
            {ROLES.map((role) => (
              <td key={role} className="px-2 py-1.5 text-center">
                {mayDo({ role, extra: [] }, right) ? (
                  <span className="font-semibold text-leaf">yes</span>
                ) : (
                  <span className="text-soft">no</span>
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
