'use client';
import type { ReactNode } from 'react';
import type { PaperReading } from '@/core/invoice/read-paper';
import type { Paper } from '@/core/paper/paper';
import type { Figure as AskedFigure } from '@/core/tally/working';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Amount, Figure } from '../kit/amount';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { NumberInput } from '../kit/number-input';
import { DeliveryRow } from './delivery-row';
import { FeeRow } from './fee-row';
import { ExemptRow, MoreSums } from './more-sums';
import { NamedSumRow } from './named-sum-row';
import type { ShownProblems } from './problems';

const changed = <Row extends { readonly id: string }>(rows: readonly Row[], id: string, part: Partial<Row>): Row[] =>
  rows.map((row) => (row.id === id ? { ...row, ...part } : row));

/** What the lines come to, each figure with its tally behind it; the one that is shown is tinted. */
export function PaperSums({
  paper,
  reading,
  problems,
  taxes,
  asked,
  locale,
  onAsk,
  onChange,
}: {
  paper: Paper;
  reading: PaperReading;
  problems: ShownProblems;
  taxes: readonly BusinessTax[];
  asked: AskedFigure;
  locale: string;
  onAsk: (figure: AskedFigure) => void;
  onChange: (part: Partial<Paper>) => void;
}) {
  const { tally, document } = reading;
  const { currency } = document;
  const row = (chosen: boolean) => (chosen ? '-mx-2 bg-petal px-2' : '');
  const link = (figure: AskedFigure, name: string, shown: ReactNode) => (
    <button
      type="button"
      className="tally-link"
      onClick={() => onAsk(figure)}
      aria-label={`Tally of the ${name}`}
      data-total={figure.of === 'total' ? true : undefined}
    >
      {shown}
    </button>
  );
  const figure = (minor: bigint) => <Figure minor={minor} currency={currency} locale={locale} />;
  const error = (field: string) => (problems.of(field) ? <FieldError>{problems.of(field)}</FieldError> : null);
  const { delivery } = paper;
  const onDelivery = taxes.filter((tax) => tax.onDelivery && document.taxes.some(({ id }) => id === tax.id));
  return (
    <div className="document text-[15.5px]/7">
      <div className={row(asked.of === 'sum')}>
        <Leader label="Sum of lines">
          {link({ of: 'sum' }, 'sum of lines', figure(tally.subtotal - tally.lineDiscounts))}
        </Leader>
      </div>
      <div className={row(asked.of === 'discount')}>
        <Leader
          label={
            <label className="inline-flex items-baseline gap-2">
              Discount
              <NumberInput
                data-field="discount"
                aria-label="Discount on the whole, as 10% or an amount"
                placeholder="none"
                className="blank !w-[74px] !text-[15.5px]/[21px]"
                autoComplete="off"
                aria-invalid={problems.of('discount') ? true : undefined}
                value={paper.discount}
                onChange={(event) => onChange({ discount: event.target.value })}
              />
            </label>
          }
        >
          {link({ of: 'discount' }, 'discount', figure(-tally.documentDiscount))}
        </Leader>
        {error('discount')}
      </div>
      {delivery ? (
        <DeliveryRow
          delivery={delivery}
          onDelivery={onDelivery}
          currency={currency}
          locale={locale}
          trouble={problems.of('delivery')}
          shipsFirst={paper.shipsFirst ?? null}
          onShipsFirst={(shipsFirst) => onChange({ shipsFirst })}
          onChange={(changed) => onChange({ delivery: changed })}
        />
      ) : null}
      {paper.fees.map((fee) => (
        <FeeRow
          key={fee.id}
          fee={fee}
          taxes={taxes}
          troubles={problems.line(fee.id)}
          set={(part) => onChange({ fees: changed(paper.fees, fee.id, part) })}
          onDrop={() => onChange({ fees: paper.fees.filter(({ id }) => id !== fee.id) })}
        />
      ))}
      {tally.taxes.map((tax, at) => {
        const { name = '', rate = '' } = document.taxes[at] ?? {};
        return (
          <div key={tax.id} className={row(asked.of === 'tax' && asked.at === at)}>
            <Leader label={`${document.pricesIncludeTax ? 'Of which ' : ''}${name}, ${rate} %`}>
              {link({ of: 'tax', at }, name, figure(tax.amount))}
            </Leader>
          </div>
        );
      })}
      {paper.flatTaxes.map((tax) => (
        <NamedSumRow
          key={tax.id}
          row={tax}
          called={{ field: 'Flat tax', short: 'this tax' }}
          nameOf="its name"
          placeholder="A flat tax"
          troubles={problems.line(tax.id)}
          set={(part) => onChange({ flatTaxes: changed(paper.flatTaxes, tax.id, part) })}
          onDrop={() => onChange({ flatTaxes: paper.flatTaxes.filter(({ id }) => id !== tax.id) })}
        />
      ))}
      {paper.exempt === null ? null : (
        <ExemptRow exempt={paper.exempt} as={paper.exemptAs} trouble={problems.of('exempt')} onChange={onChange} />
      )}
      <Leader label="Total due" className="rule-total mt-1 py-1 text-[19px]/[26px] font-semibold">
        {link({ of: 'total' }, 'total', <Amount minor={tally.total} currency={currency} locale={locale} />)}
      </Leader>
      <MoreSums paper={paper} onChange={onChange} />
    </div>
  );
}
