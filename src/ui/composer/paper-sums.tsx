'use client';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { deliveryCheck } from '@/core/invoice/delivery-check';
import type { PaperReading } from '@/core/invoice/read-paper';
import type { Paper } from '@/core/paper/paper';
import type { Figure as AskedFigure } from '@/core/tally/working';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Amount, Figure } from '../amount';
import { FieldError } from '../field';
import { Leader } from '../leader';
import type { ShownProblems } from './problems';

const SMALL_BLANK = 'blank !w-[86px] !text-[15.5px]/[21px] text-right';

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
  const drop = (name: string, onDrop: () => void) => (
    <button type="button" className="grid size-6 place-items-center text-soft hover:text-ink" onClick={onDrop}>
      <X size={13} strokeWidth={1.6} aria-hidden="true" />
      <span className="sr-only">Without {name}</span>
    </button>
  );
  const { delivery } = paper;
  const check = delivery ? deliveryCheck(delivery, currency) : null;
  const onDelivery = taxes.filter((tax) => tax.onDelivery && document.taxes.some(({ id }) => id === tax.id));
  const doubled =
    delivery && delivery.taxes === null && new Set(onDelivery.map(({ name }) => name)).size < onDelivery.length;
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
              <input
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
        <div>
          <Leader
            label={
              <span className="inline-flex items-baseline gap-1">
                Delivery {drop('delivery', () => onChange({ delivery: null }))}
              </span>
            }
          >
            <input
              data-field="delivery"
              aria-label="Delivery: what the customer pays"
              placeholder="0.00"
              className={SMALL_BLANK}
              value={delivery.charged}
              onChange={(event) => onChange({ delivery: { ...delivery, charged: event.target.value } })}
            />
          </Leader>
          {error('delivery')}
          <div className="small flex flex-wrap items-baseline gap-x-3 pb-1 font-sans text-soft">
            <label className="flex items-baseline gap-1.5">
              Postage
              <input
                className="blank !w-[64px] !text-[13.5px]/[18px] text-right"
                placeholder="0.00"
                value={delivery.postage}
                onChange={(event) => onChange({ delivery: { ...delivery, postage: event.target.value } })}
              />
            </label>
            <label className="flex items-baseline gap-1.5">
              Packaging
              <input
                className="blank !w-[64px] !text-[13.5px]/[18px] text-right"
                placeholder="0.00"
                value={delivery.packaging}
                onChange={(event) => onChange({ delivery: { ...delivery, packaging: event.target.value } })}
              />
            </label>
            {check ? (
              <span className={check.short > 0n ? 'font-medium text-ochre' : 'text-leaf'} role="status">
                {check.short > 0n ? <>You pay {figure(check.short)} yourself</> : 'Covers the cost'}
              </span>
            ) : (
              <span>Only seen here</span>
            )}
          </div>
          {doubled ? (
            <p className="small pb-1 font-sans font-medium text-ochre">
              Two rates of one tax would be on delivery.{' '}
              {onDelivery.map((tax) => (
                <button
                  key={tax.id}
                  type="button"
                  className="link link-small mr-2"
                  onClick={() => onChange({ delivery: { ...delivery, taxes: [tax.id] } })}
                >
                  Only {tax.rate} %
                </button>
              ))}
            </p>
          ) : null}
        </div>
      ) : null}
      {paper.fees.map((fee) => (
        <div key={fee.id}>
          <Leader
            label={
              <span className="inline-flex items-baseline gap-1">
                <input
                  data-field={`${fee.id}.name`}
                  aria-label="Fee: what it is"
                  placeholder="A fee"
                  className="blank !w-[124px] !text-[15.5px]/[21px]"
                  maxLength={120}
                  value={fee.name}
                  onChange={(event) =>
                    onChange({
                      fees: paper.fees.map((one) => (one.id === fee.id ? { ...one, name: event.target.value } : one)),
                    })
                  }
                />
                {drop('this fee', () => onChange({ fees: paper.fees.filter(({ id }) => id !== fee.id) }))}
              </span>
            }
          >
            <input
              data-field={`${fee.id}.amount`}
              aria-label="Fee: how much"
              placeholder="0.00"
              className={SMALL_BLANK}
              value={fee.amount}
              onChange={(event) =>
                onChange({
                  fees: paper.fees.map((one) => (one.id === fee.id ? { ...one, amount: event.target.value } : one)),
                })
              }
            />
          </Leader>
          <select
            aria-label="Tax on this fee"
            className="blank small !w-auto !py-0 !font-sans !text-[12.5px] text-soft"
            value={fee.taxes[0] ?? ''}
            onChange={(event) =>
              onChange({
                fees: paper.fees.map((one) =>
                  one.id === fee.id ? { ...one, taxes: event.target.value ? [event.target.value] : [] } : one,
                ),
              })
            }
          >
            <option value="">No tax on it</option>
            {taxes
              .filter((tax) => !tax.retired || fee.taxes.includes(tax.id))
              .map((tax) => (
                <option key={tax.id} value={tax.id}>
                  {tax.name}, {tax.rate} %
                </option>
              ))}
          </select>
          {problems.line(fee.id).map((words) => (
            <FieldError key={words}>{words}</FieldError>
          ))}
        </div>
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
        <div key={tax.id}>
          <Leader
            label={
              <span className="inline-flex items-baseline gap-1">
                <input
                  data-field={`${tax.id}.name`}
                  aria-label="Flat tax: its name"
                  placeholder="A flat tax"
                  className="blank !w-[124px] !text-[15.5px]/[21px]"
                  maxLength={120}
                  value={tax.name}
                  onChange={(event) =>
                    onChange({
                      flatTaxes: paper.flatTaxes.map((one) =>
                        one.id === tax.id ? { ...one, name: event.target.value } : one,
                      ),
                    })
                  }
                />
                {drop('this tax', () => onChange({ flatTaxes: paper.flatTaxes.filter(({ id }) => id !== tax.id) }))}
              </span>
            }
          >
            <input
              data-field={`${tax.id}.amount`}
              aria-label="Flat tax: how much"
              placeholder="0.00"
              className={SMALL_BLANK}
              value={tax.amount}
              onChange={(event) =>
                onChange({
                  flatTaxes: paper.flatTaxes.map((one) =>
                    one.id === tax.id ? { ...one, amount: event.target.value } : one,
                  ),
                })
              }
            />
          </Leader>
          {problems.line(tax.id).map((words) => (
            <FieldError key={words}>{words}</FieldError>
          ))}
        </div>
      ))}
      {paper.exempt === null ? null : (
        <div>
          <label className="flex items-baseline gap-2">
            <span className="whitespace-nowrap">No tax:</span>
            <input
              data-field="exempt"
              aria-label="Why no tax applies"
              placeholder="why, as it stands on the invoice"
              className="blank !text-[15.5px]/[21px]"
              maxLength={300}
              aria-invalid={problems.of('exempt') ? true : undefined}
              value={paper.exempt}
              onChange={(event) => onChange({ exempt: event.target.value })}
            />
            {drop('this exemption', () => onChange({ exempt: null }))}
          </label>
          {error('exempt')}
        </div>
      )}
      <Leader label="Total due" className="rule-total mt-1 py-1 text-[19px]/[26px] font-semibold">
        {link({ of: 'total' }, 'total', <Amount minor={tally.total} currency={currency} locale={locale} />)}
      </Leader>
      <p className="small mt-1.5 flex flex-wrap gap-x-3.5 gap-y-1 font-sans">
        {delivery ? null : (
          <button
            type="button"
            className="link link-small !text-soft"
            onClick={() => onChange({ delivery: { charged: '', postage: '', packaging: '', taxes: null } })}
          >
            Delivery
          </button>
        )}
        <button
          type="button"
          className="link link-small !text-soft"
          onClick={() =>
            onChange({ fees: [...paper.fees, { id: crypto.randomUUID(), name: '', amount: '', taxes: [] }] })
          }
        >
          A fee
        </button>
        <button
          type="button"
          className="link link-small !text-soft"
          onClick={() =>
            onChange({ flatTaxes: [...paper.flatTaxes, { id: crypto.randomUUID(), name: '', amount: '' }] })
          }
        >
          A flat tax
        </button>
        {paper.exempt === null ? (
          <button type="button" className="link link-small !text-soft" onClick={() => onChange({ exempt: '' })}>
            No tax at all
          </button>
        ) : null}
      </p>
    </div>
  );
}
