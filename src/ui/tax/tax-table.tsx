'use client';
import { useRouter } from 'next/navigation';
import Papa from 'papaparse';
import { useState } from 'react';
import { addressForm } from '@/core/place/address';
import { type BusinessTax, placeTaxes, taxClasses } from '@/core/tax/business-tax';
import { newTaxes, taxOfCells } from '@/core/tax/tax-csv';
import { usePlaces } from '../customer/use-places';
import { FieldError, SelectField } from '../field';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';

const listed = (text: string): string[] | undefined => {
  const codes = text
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);
  return codes.length > 0 ? codes : undefined;
};

/** The tax rules as a table, and the question what somebody at a place pays; the answer follows what stands in the table. */
export function TaxTable({
  rules: kept,
  home,
  mayAsk,
}: {
  rules: readonly BusinessTax[];
  home: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [rules, setRules] = useState<readonly BusinessTax[]>(kept);
  const [changed, setChanged] = useState(false);
  const [busy, setBusy] = useState(false);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [country, setCountry] = useState(home);
  const [region, setRegion] = useState('');
  const [postalCode, setPostalCode] = useState('');
  const [taxClass, setTaxClass] = useState('standard');
  const countries = usePlaces('');
  const regions = usePlaces(country);

  const change = (next: readonly BusinessTax[]) => {
    setRules(next);
    setChanged(true);
  };
  const set = (id: string, part: Partial<BusinessTax>) =>
    change(
      rules.map((rule) => {
        if (rule.id !== id) return rule;
        const { regions: _r, postalCodes: _p, ...rest } = { ...rule, ...part };
        const held = { ...rule, ...part };
        return {
          ...rest,
          ...(held.regions ? { regions: held.regions } : {}),
          ...(held.postalCodes ? { postalCodes: held.postalCodes } : {}),
        };
      }),
    );

  async function keep() {
    setBusy(true);
    const answer = await send('PUT', '/api/taxes', { rules });
    setBusy(false);
    if (!answer.ok) {
      setTroubles(Object.fromEntries(answer.fields.map(({ field, words }) => [field.split('.')[0] ?? '', words])));
      return sayTrouble(troubleOf(answer));
    }
    setTroubles({});
    setChanged(false);
    say('The tax rules are kept');
    router.refresh();
  }

  async function bringIn(file: File) {
    const { data } = Papa.parse<string[]>((await file.text()).replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
    const [headings = [], ...rows] = data;
    if (!headings.some((heading) => /^name$/i.test(heading.trim()))) {
      return sayTrouble(
        'The first row of the file has to name its columns: Name, Rate, Class, Country, Regions, Postal codes.',
      );
    }
    const fresh = newTaxes(
      rules,
      rows.map((cells) => taxOfCells(headings, cells, crypto.randomUUID())),
    );
    if (fresh.length === 0) return say('All of these rules are here already');
    change([...rules, ...fresh]);
    say(`${fresh.length === 1 ? '1 new rule is' : `${fresh.length} new rules are`} read. Look, then keep them.`);
  }

  const place = { country, ...(region ? { region } : {}), ...(postalCode ? { postalCode } : {}) };
  const found = placeTaxes(place, taxClass, rules);
  const applying = rules.filter((rule) => found.includes(rule.id));
  const sum = applying.reduce((total, rule) => total + Number(rule.rate), 0);
  return (
    <div className="mx-auto grid max-w-[1440px] items-start gap-6 px-4 pb-10 sm:px-7 lg:grid-cols-[minmax(0,1fr)_300px]">
      <section className="sheet min-w-0 px-5 py-4" aria-label="Tax rules">
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 pb-3">
          <h1 className="title-screen flex-1">Tax rules</h1>
          <a className="link" href="/files/taxes">
            As CSV
          </a>
          {mayAsk ? (
            <>
              <label className="link cursor-pointer">
                From CSV
                <input
                  type="file"
                  accept=".csv,text/csv"
                  className="sr-only"
                  onChange={(event) => {
                    const [file] = event.target.files ?? [];
                    event.target.value = '';
                    if (file) void bringIn(file);
                  }}
                />
              </label>
              <button type="button" className="btn btn-go" disabled={!changed || busy} onClick={() => void keep()}>
                {busy ? 'Keeping' : 'Keep rules'}
              </button>
            </>
          ) : null}
        </div>
        <fieldset disabled={!mayAsk} className="min-w-0 overflow-x-auto">
          <legend className="sr-only">The rules</legend>
          <table className="w-full min-w-[760px] border-collapse">
            <thead>
              <tr className="small border-b border-ink text-left text-soft">
                {[
                  'Name',
                  'Rate %',
                  'Class',
                  'Country',
                  'Regions',
                  'Postal codes',
                  'On delivery',
                  'Beside others',
                  '',
                ].map((head) => (
                  <th key={head} className="pb-1 pr-2 font-medium">
                    {head || <span className="sr-only">Remove</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rules.map((rule, at) => (
                <tr key={rule.id} className={`border-b border-rule ${found.includes(rule.id) ? 'bg-petal' : ''}`}>
                  <td className="py-1 pr-2">
                    <input
                      aria-label={`Rule ${at + 1}: name`}
                      className="blank"
                      value={rule.name}
                      onChange={(event) => set(rule.id, { name: event.target.value })}
                    />
                    {troubles[rule.id] ? <FieldError>{troubles[rule.id]}</FieldError> : null}
                  </td>
                  <td className="pr-2">
                    <input
                      aria-label={`Rule ${at + 1}: rate in percent`}
                      className="blank !w-16 text-right"
                      inputMode="decimal"
                      value={rule.rate}
                      onChange={(event) => set(rule.id, { rate: event.target.value })}
                    />
                  </td>
                  <td className="pr-2">
                    <input
                      aria-label={`Rule ${at + 1}: class`}
                      className="blank !w-24"
                      value={rule.class}
                      onChange={(event) => set(rule.id, { class: event.target.value })}
                    />
                  </td>
                  <td className="pr-2">
                    <input
                      aria-label={`Rule ${at + 1}: country, or nothing for by hand only`}
                      className="blank !w-14"
                      placeholder="hand"
                      maxLength={2}
                      value={rule.country}
                      onChange={(event) => set(rule.id, { country: event.target.value.toUpperCase() })}
                    />
                  </td>
                  <td className="pr-2">
                    <input
                      aria-label={`Rule ${at + 1}: regions`}
                      className="blank !w-24"
                      placeholder="all"
                      defaultValue={(rule.regions ?? []).join(' ')}
                      onBlur={(event) => set(rule.id, { regions: listed(event.target.value) as string[] })}
                    />
                  </td>
                  <td className="pr-2">
                    <textarea
                      rows={1}
                      aria-label={`Rule ${at + 1}: postal codes`}
                      className="blank !w-40 resize-none [field-sizing:content]"
                      placeholder="all"
                      defaultValue={(rule.postalCodes ?? []).join(' ')}
                      onBlur={(event) => set(rule.id, { postalCodes: listed(event.target.value) as string[] })}
                    />
                  </td>
                  <td className="pr-2 text-center">
                    <input
                      type="checkbox"
                      className="size-4 accent-plum"
                      aria-label={`Rule ${at + 1}: also on delivery`}
                      checked={rule.onDelivery}
                      onChange={(event) => set(rule.id, { onDelivery: event.target.checked })}
                    />
                  </td>
                  <td className="pr-2 text-center">
                    <input
                      type="checkbox"
                      className="size-4 accent-plum"
                      aria-label={`Rule ${at + 1}: applies beside others`}
                      checked={rule.additional ?? false}
                      onChange={(event) => set(rule.id, { additional: event.target.checked })}
                    />
                  </td>
                  <td>
                    <button
                      type="button"
                      className="link link-small"
                      aria-label={`Remove rule ${at + 1}`}
                      onClick={() => change(rules.filter(({ id }) => id !== rule.id))}
                    >
                      Remove
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <button
            type="button"
            className="link mt-3"
            onClick={() =>
              change([
                ...rules,
                {
                  id: crypto.randomUUID(),
                  name: '',
                  rate: '0',
                  class: 'standard',
                  country: home,
                  onDelivery: false,
                  additional: false,
                  retired: false,
                },
              ])
            }
          >
            Add a rule
          </button>
        </fieldset>
        <p className="small mt-4 max-w-[80ch] text-soft">
          The most specific rule wins: an exact postal code before a range, a beginning (32*), a region, the country.
          One that stands beside others is added to the winner. Without a country it is only used where you choose it by
          hand.
        </p>
      </section>
      <aside className="grid gap-3" aria-label="Which tax">
        <h2 className="title-section border-b border-ink pb-1">Who pays which tax?</h2>
        <SelectField
          label="Country"
          value={country}
          onChange={(event) => {
            setCountry(event.target.value);
            setRegion('');
          }}
        >
          {countries.length === 0 ? <option value={country}>{country}</option> : null}
          {countries.map((one) => (
            <option key={one.code} value={one.code}>
              {one.name}
            </option>
          ))}
        </SelectField>
        {regions.length > 0 ? (
          <SelectField
            label={addressForm(country).region || 'Region'}
            value={region}
            onChange={(event) => setRegion(event.target.value)}
          >
            <option value="">any</option>
            {regions.map((one) => (
              <option key={one.code} value={one.code}>
                {one.name}
              </option>
            ))}
          </SelectField>
        ) : null}
        <div>
          <label className="label mb-1" htmlFor="try-code">
            Postal code
          </label>
          <input
            id="try-code"
            className="input"
            placeholder="32055"
            value={postalCode}
            onChange={(event) => setPostalCode(event.target.value)}
          />
        </div>
        <SelectField label="Class" value={taxClass} onChange={(event) => setTaxClass(event.target.value)}>
          {taxClasses(rules).map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </SelectField>
        <div className="border-t border-ink pt-2" role="status" aria-label="The answer">
          {applying.length === 0 ? (
            <p className="document">No tax.</p>
          ) : (
            applying.map((rule) => (
              <p key={rule.id} className="leader document">
                <span>{rule.name}</span>
                <span className="dots" aria-hidden="true" />
                <span>{rule.rate} %</span>
              </p>
            ))
          )}
          {applying.length > 1 ? (
            <p className="leader document rule-total font-semibold">
              <span>Together</span>
              <span className="dots" aria-hidden="true" />
              <span>{Number(sum.toFixed(4))} %</span>
            </p>
          ) : null}
        </div>
      </aside>
    </div>
  );
}
