'use client';
import { deliveryCheck } from '@/core/invoice/delivery-check';
import type { Paper } from '@/core/paper/paper';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { NumberInput } from '../kit/number-input';
import { Select } from '../kit/select';
import { SMALL_BLANK, Without } from './without';

type Delivery = NonNullable<Paper['delivery']>;

/** What the customer pays for delivery, and what it costs the business. */
export function DeliveryRow({
  delivery,
  onDelivery,
  currency,
  locale,
  trouble,
  shipsFirst,
  onShipsFirst,
  onChange,
}: {
  delivery: Delivery;
  /** The taxes of this invoice that also apply to delivery. */
  onDelivery: readonly BusinessTax[];
  currency: string;
  locale: string;
  trouble: string | undefined;
  /** Whether it leaves before it is paid; null for as the customer or the business usually does. */
  shipsFirst: boolean | null;
  onShipsFirst: (shipsFirst: boolean | null) => void;
  onChange: (delivery: Delivery | null) => void;
}) {
  const set = (part: Partial<Delivery>) => onChange({ ...delivery, ...part });
  const check = deliveryCheck(delivery, currency);
  const doubled = delivery.taxes === null && new Set(onDelivery.map(({ name }) => name)).size < onDelivery.length;
  return (
    <div>
      <Leader
        label={
          <span className="inline-flex items-baseline gap-1">
            Delivery <Without name="delivery" onDrop={() => onChange(null)} />
          </span>
        }
      >
        <NumberInput
          data-field="delivery"
          aria-label="Delivery: what the customer pays"
          placeholder="0.00"
          className={SMALL_BLANK}
          value={delivery.charged}
          onChange={(event) => set({ charged: event.target.value })}
        />
      </Leader>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <div className="small flex flex-wrap items-baseline gap-x-3 pb-1 font-sans text-soft">
        <label className="flex items-baseline gap-1.5">
          Postage
          <NumberInput
            className="blank !w-[64px] !text-[13.5px]/[18px] text-right"
            placeholder="0.00"
            value={delivery.postage}
            onChange={(event) => set({ postage: event.target.value })}
          />
        </label>
        <label className="flex items-baseline gap-1.5">
          Packaging
          <NumberInput
            className="blank !w-[64px] !text-[13.5px]/[18px] text-right"
            placeholder="0.00"
            value={delivery.packaging}
            onChange={(event) => set({ packaging: event.target.value })}
          />
        </label>
        {check ? (
          <span className={check.short > 0n ? 'font-medium text-ochre' : 'text-leaf'} role="status">
            {check.short > 0n ? (
              <>
                You pay <Figure minor={check.short} currency={currency} locale={locale} /> yourself
              </>
            ) : (
              'Covers the cost'
            )}
          </span>
        ) : (
          <span>Only seen here</span>
        )}
      </div>
      <label className="small flex items-baseline gap-1.5 pb-1 font-sans text-soft">
        Leaves
        <Select
          look="blank"
          className="!text-[13.5px]/[18px]"
          value={shipsFirst === null ? '' : shipsFirst ? 'first' : 'paid'}
          onChange={({ target: { value } }) => onShipsFirst(value === '' ? null : value === 'first')}
        >
          <option value="">as usual with this customer</option>
          <option value="first">before it is paid</option>
          <option value="paid">once it is paid</option>
        </Select>
      </label>
      {doubled ? (
        <p className="small pb-1 font-sans font-medium text-ochre">
          Two rates of one tax would be on delivery.{' '}
          {onDelivery.map((tax) => (
            <Button key={tax.id} look="small-link" className="mr-2" onClick={() => set({ taxes: [tax.id] })}>
              Only {tax.rate} %
            </Button>
          ))}
        </p>
      ) : null}
    </div>
  );
}
