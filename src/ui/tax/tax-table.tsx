'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { csvTable } from '@/core/file/csv-table';
import type { BusinessTax } from '@/core/tax/business-tax';
import { newTaxes, taxOfCells } from '@/core/tax/tax-csv';
import { fileText } from '../import/file-text';
import { Button } from '../kit/button';
import { EditableTable } from '../kit/editable-table';
import { OwnersOnly } from '../kit/owners-only';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { type TypedTax, taxColumns, taxTyped, typedTax } from './tax-columns';
import { rulesFor, useAsked, WhichTax } from './which-tax';

/** Every class that a rule or an item has, with how many of each: a class without a rule is taxed nowhere. */
function taxClasses(
  rules: readonly TypedTax[],
  items: readonly { readonly class: string; readonly count: number }[],
): { name: string; items: number; rules: number }[] {
  const names = [...new Set([...rules.map((rule) => rule.class), ...items.map((one) => one.class)])].sort();
  return names.map((name) => ({
    name,
    items: items.find((one) => one.class === name)?.count ?? 0,
    rules: rules.filter((rule) => rule.class === name).length,
  }));
}

/** The rules of a file that are not in the table yet; says what is wrong with the file, or that it brings nothing. */
async function rulesOfFile(file: File, rules: readonly BusinessTax[]): Promise<readonly BusinessTax[]> {
  const { headings, rows, broken } = csvTable(await fileText(file));
  if (broken[0]) {
    sayTrouble(`Line ${broken[0].line}: ${broken[0].words} Nothing was read.`);
    return [];
  }
  if (!headings.some((heading) => /^name$/i.test(heading.trim()))) {
    sayTrouble('The first row of the file has to name its columns: Name, Rate, Class, Country, Regions, Postal codes.');
    return [];
  }
  const fresh = newTaxes(
    rules,
    rows.map((cells) => taxOfCells(headings, cells, crypto.randomUUID())),
  );
  if (fresh.length === 0) say('All of these rules are here already');
  else say(`${fresh.length === 1 ? '1 new rule is' : `${fresh.length} new rules are`} read. Look, then save them.`);
  return fresh;
}

/** The tax rules as a table, and the question what somebody at a place pays; the answer follows what stands in the table. */
export function TaxTable({
  rules: kept,
  classes,
  home,
  mayAsk,
}: {
  rules: readonly BusinessTax[];
  /** How many items there are of each class. */
  classes: readonly { readonly class: string; readonly count: number }[];
  home: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [typed, setTyped] = useState<readonly TypedTax[]>(kept.map(typedTax));
  const [changed, setChanged] = useState(false);
  const [busy, setBusy] = useState(false);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [asked, setAsked] = useAsked(home);
  const rules = typed.map(taxTyped);
  const applying = new Set(rulesFor(asked, rules).map(({ id }) => id));

  const change = (next: readonly TypedTax[]) => {
    setTyped(next);
    setChanged(true);
  };

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
    say('The tax rules are saved');
    router.refresh();
  }

  async function bringIn(file: File) {
    const fresh = await rulesOfFile(file, rules);
    if (fresh.length > 0) change([...typed, ...fresh.map(typedTax)]);
  }

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
              <Button look="go" busy={busy} disabled={!changed} onClick={() => void keep()} busyWords="Saving">
                Save rules
              </Button>
            </>
          ) : null}
        </div>
        <OwnersOnly may={mayAsk} />
        <fieldset disabled={!mayAsk} className="min-w-0">
          <legend className="sr-only">The rules</legend>
          <EditableTable
            called="Rule"
            rows={typed}
            columns={taxColumns(troubles)}
            least="min-w-[760px]"
            addWords="Add a rule"
            fresh={() => ({
              id: crypto.randomUUID(),
              name: '',
              rate: '0',
              class: 'standard',
              country: home,
              regions: [],
              postalCodes: [],
              onDelivery: false,
              additional: false,
              retired: false,
            })}
            isMarked={({ id }) => applying.has(id)}
            onChange={change}
          />
        </fieldset>
        <p className="small mt-4 max-w-[80ch] text-soft">
          The most specific rule wins: an exact postal code before a range, a beginning (32*), a region, the country.
          One that stands beside others is added to the winner. Without a country it is only used where you choose it by
          hand.
        </p>
      </section>
      <div className="grid gap-7">
        <WhichTax asked={asked} rules={rules} set={(part) => setAsked((before) => ({ ...before, ...part }))} />
        <section aria-label="Classes">
          <h2 className="title-section border-b border-ink pb-1">Classes</h2>
          <ul>
            {taxClasses(typed, classes).map(({ name, items, rules: count }) => (
              <li key={name} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
                <span className="min-w-0 truncate">{name}</span>
                <span className={count === 0 ? 'text-brick' : 'text-soft'}>
                  {items === 1 ? '1 item' : `${items} items`},{' '}
                  {count === 0 ? 'no rule' : count === 1 ? '1 rule' : `${count} rules`}
                </span>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
