'use client';
import { DateField } from '../kit/date-field';
import { Field } from '../kit/field';
import { Collapsible } from './collapsible';
import { type OfferEditing } from './use-offer';

/** How long and how often it can be paid. */
export function LimitsSection({ of }: { of: OfferEditing }) {
  const { offer, set } = of;
  const now = [
    offer.mostPayments === null ? '' : `${offer.mostPayments} payments`,
    offer.lastOn ? `until ${offer.lastOn}` : '',
  ].filter(Boolean);
  return (
    <Collapsible name="Limits" now={now.join(' · ') || 'none'}>
      <div className="flex flex-wrap items-start gap-4">
        <Field
          label="At most so many payments"
          className="w-[190px]"
          inputMode="numeric"
          value={offer.mostPayments ?? ''}
          onChange={(event) =>
            set({ mostPayments: /^[1-9]\d{0,6}$/.test(event.target.value) ? Number(event.target.value) : null })
          }
        />
        <DateField label="Last day" className="w-[170px]" value={offer.lastOn} onDay={(day) => set({ lastOn: day })} />
      </div>
      <p className="small text-soft">
        What is on stock is a limit too: items from Records are never sold beyond what is there. A payment that is on
        its way when the offer ends is still taken.
      </p>
    </Collapsible>
  );
}
