'use client';
import { useState } from 'react';
import { type CustomsPart, type CustomsProblem, NATURES, type Nature } from '@/core/customs/declaration';
import { NATURE_WORDS } from '@/core/customs/form';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import type { Measures } from '@/core/parcel/measure';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Dialog } from '../kit/dialog';
import { Field, FieldError } from '../kit/field';
import { MoneyField } from '../kit/money-field';
import { usePress } from '../kit/press';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';
import type { CustomsShown, PaperRowShown } from './shown';
import { WeightField } from './weight-field';

/** What is missing, under its narrow field: the whole sentence stands on the paper. */
const BRIEF: Readonly<Record<CustomsProblem['field'], string>> = {
  declaredAs: 'Say what it is, such as “violin strings, steel”.',
  hsCode: '6 to 10 figures',
  origin: 'Where?',
  netGrams: 'How heavy?',
  minor: 'Also of a gift',
  explanation: 'Say it',
};

/** A line as it is typed: its worth as the text of a sum. */
type LineTyped = Omit<CustomsShown['lines'][number], 'minor'> & { readonly value: string };

const typedLines = ({ lines }: CustomsShown, currency: string): LineTyped[] =>
  lines.map(({ minor, ...line }) => ({
    ...line,
    value: minor === null || minor === 0 ? '' : decimalText(BigInt(minor), minorDigits(currency)),
  }));

/** What customs ask of a parcel that crosses a border: of each thing what it is, weighs and is worth, its number and where it was made. */
export function CustomsDialog({
  row,
  customs,
  measures,
  currency,
  sums,
  mayKeep,
  onClose,
}: {
  row: PaperRowShown;
  customs: CustomsShown;
  measures: Measures;
  currency: string;
  /** Whether whoever sees this sees sums: others write a worth without reading what stands. */
  sums: boolean;
  /** Whether they may keep it with the items. */
  mayKeep: boolean;
  onClose: () => void;
}) {
  const [part, setPart] = useState<CustomsPart>(customs.part);
  const [lines, setLines] = useState(() => typedLines(customs, currency));
  const [keep, setKeep] = useState(mayKeep);
  const [trouble, setTrouble] = useState('');
  const { busy, press } = usePress();
  const setLine = (place: number, change: Partial<LineTyped>) =>
    setLines(lines.map((line) => (line.place === place ? { ...line, ...change } : line)));
  const missing = (at: number | null, field: CustomsProblem['field']) => {
    const problem = customs.problems.find((one) => one.line === at && one.field === field);
    return problem && (at === null ? problem.words : BRIEF[field]);
  };

  async function save() {
    const minors = lines.map(({ value }) => (value.trim() ? typedMinor(value, minorDigits(currency)) : null));
    const wrong = lines.findIndex(({ value }, at) => value.trim() !== '' && minors[at] === null);
    if (wrong >= 0) return setTrouble(`Write what ${lines[wrong]?.what ?? 'it'} is worth as a sum.`);
    const answer = await press(
      `/api/parcels/${row.id}/customs`,
      {
        ...part,
        keep: mayKeep && keep,
        lines: lines.map(({ place, declaredAs, hsCode, origin, netGrams }, at) => ({
          ...{ place, declaredAs, hsCode, origin },
          netGrams: netGrams > 0 ? netGrams : null,
          valueMinor: minors[at] === null || minors[at] === undefined ? null : Number(minors[at]),
        })),
      },
      '',
      'PUT',
    );
    setTrouble(troubleOf(answer));
    if (answer.ok) onClose();
  }

  return (
    <Dialog
      open
      wide
      onOpenChange={(next) => !next && onClose()}
      title={`For customs: ${row.name}`}
      about="What stands here goes to the carrier with the label, and onto the form outside the parcel."
    >
      <form
        className="grid gap-5"
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className="grid gap-3 sm:grid-cols-2">
          <SelectField
            label="It is"
            value={part.nature}
            onChange={({ target }) =>
              setPart({ ...part, nature: NATURES.find((one) => one === target.value) ?? ('sale' satisfies Nature) })
            }
          >
            {NATURES.map((nature) => (
              <option key={nature} value={nature}>
                {NATURE_WORDS[nature].en}
              </option>
            ))}
          </SelectField>
          {part.nature === 'other' ? (
            <Field
              label="Of what kind"
              value={part.explanation}
              maxLength={80}
              error={missing(null, 'explanation')}
              onChange={({ target }) => setPart({ ...part, explanation: target.value })}
            />
          ) : (
            <Field
              label="Their importer’s or tax number"
              hint="Where their customs ask for one"
              value={part.importer}
              maxLength={40}
              onChange={({ target }) => setPart({ ...part, importer: target.value })}
            />
          )}
        </div>
        {lines.map((line, at) => (
          <fieldset key={line.place} className="grid gap-3 border-t border-rule pt-2">
            <legend className="document private float-left w-full pr-2 font-medium">
              {line.quantity === '1' ? line.what : `${line.what}, ${line.quantity}`}
            </legend>
            <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_92px_110px_104px_72px]">
              <Field
                label="Called"
                placeholder={line.what}
                value={line.declaredAs}
                maxLength={120}
                error={missing(at, 'declaredAs')}
                onChange={({ target }) => setLine(line.place, { declaredAs: target.value })}
              />
              <WeightField
                label="One weighs"
                measures={measures}
                value={line.netGrams}
                error={missing(at, 'netGrams')}
                onChange={(netGrams) => setLine(line.place, { netGrams })}
              />
              <MoneyField
                label="All is worth"
                currency={currency}
                value={line.value}
                placeholder={sums ? '' : 'as sold'}
                error={missing(at, 'minor')}
                onChange={({ target }) => setLine(line.place, { value: target.value })}
              />
              <Field
                label="Customs number"
                placeholder="9209.94"
                value={line.hsCode}
                maxLength={20}
                error={missing(at, 'hsCode')}
                onChange={({ target }) => setLine(line.place, { hsCode: target.value })}
              />
              <Field
                label="Made in"
                placeholder="US"
                value={line.origin}
                maxLength={2}
                error={missing(at, 'origin')}
                onChange={({ target }) => setLine(line.place, { origin: target.value.toUpperCase() })}
              />
            </div>
          </fieldset>
        ))}
        {missing(null, 'netGrams') ? <FieldError>{missing(null, 'netGrams')}</FieldError> : null}
        <details className="border-t border-rule pt-2">
          <summary className="link inline-block cursor-pointer">Comments, licence, certificate</summary>
          <div className="grid gap-3 pt-3 sm:grid-cols-3">
            {(
              [
                ['comments', 'Comments', 160],
                ['licence', 'Licence number', 40],
                ['certificate', 'Certificate number', 40],
              ] as const
            ).map(([key, label, most]) => (
              <Field
                key={key}
                label={label}
                value={part[key]}
                maxLength={most}
                onChange={({ target }) => setPart({ ...part, [key]: target.value })}
              />
            ))}
          </div>
        </details>
        {mayKeep ? (
          <TickField
            label="Keep numbers, weights and countries with the items"
            checked={keep}
            onChange={({ target }) => setKeep(target.checked)}
          />
        ) : null}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="flex justify-end gap-3">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="go" busy={busy} busyWords="One moment">
            Save for customs
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
