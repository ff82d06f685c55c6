'use client';
import { type Offer } from '@/core/offer/offer';
import { TickField } from '../kit/check';
import { Field, FieldError, TextField } from '../kit/field';
import { SelectField } from '../kit/select';
import { Collapsible } from './collapsible';
import { type OfferEditing } from './use-offer';

/** What happens once it is paid. */
export function AfterSection({ of }: { of: OfferEditing }) {
  const { offer, set, troubles } = of;
  return (
    <Collapsible
      name="Afterwards"
      now={
        offer.voucher
          ? 'gift vouchers'
          : offer.redirect
            ? 'leads on to your website'
            : offer.thanks
              ? 'your own thanks'
              : 'our thanks and the receipt'
      }
    >
      <TickField
        label="What is paid for are gift vouchers"
        hint="Each with a code and a paper, worth what was paid for it; taxed when it is used."
        checked={offer.voucher}
        onChange={(event) => set({ voucher: event.target.checked })}
      />
      {troubles.voucher ? <FieldError>{troubles.voucher}</FieldError> : null}
      <TextField
        label="Words of thanks"
        value={offer.thanks}
        maxLength={2000}
        onChange={(event) => set({ thanks: event.target.value })}
      />
      <Field
        label="Leads on to"
        placeholder="https://www.shop.example/thanks"
        value={offer.redirect}
        error={troubles.redirect}
        hint="With the order’s reference, amount and a signature, so that your website can trust it."
        onChange={(event) => set({ redirect: event.target.value.trim() })}
      />
      <Field
        label="Whoever turns back goes to"
        placeholder="https://www.shop.example"
        value={offer.turnedBack}
        error={troubles.turnedBack}
        onChange={(event) => set({ turnedBack: event.target.value.trim() })}
      />
      <Field
        label="Also tell"
        placeholder="front@shop.example, teacher@shop.example"
        defaultValue={offer.notify.join(', ')}
        error={Object.entries(troubles).find(([field]) => field.startsWith('notify'))?.[1]}
        onBlur={(event) =>
          set({
            notify: event.target.value
              .split(/[,;\s]+/)
              .map((one) => one.trim())
              .filter(Boolean),
          })
        }
      />
      <SelectField
        label="Receipt"
        className="w-[240px]"
        value={offer.receipt}
        onChange={(event) => set({ receipt: event.target.value as Offer['receipt'] })}
      >
        <option value="auto">goes out by itself</option>
        <option value="hand">I send it by hand</option>
      </SelectField>
    </Collapsible>
  );
}
