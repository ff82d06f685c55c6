'use client';
import type { Fronts, Location } from '@/core/front/front';
import { AddressFields } from '../customer/address-fields';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { TypedDialog } from '../kit/form-dialog';
import { useFront } from './use-front';

/** A place from which the business sells. */
export function LocationDialog({
  fronts,
  location,
  home,
  onClose,
}: {
  fronts: Fronts;
  location: Location;
  home: string;
  onClose: () => void;
}) {
  const { form, at, known } = useFront(fronts, 'locations', location, onClose);
  const { values, set } = form;
  const places = ['lines', 'city', 'postalCode', 'region', 'country'].map(
    (part) => [`place.${part}`, at(`place.${part}`) ?? ''] as const,
  );
  return (
    <TypedDialog
      of={form}
      title={known ? location.name : 'A location'}
      about="Its address stands on papers; customers without an address are taxed there."
      action="Save it"
      onClose={() => {
        form.leave();
        onClose();
      }}
    >
      <Field
        label="Called"
        maxLength={80}
        placeholder="such as Harbour shop"
        value={values.name}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <AddressFields
        legend="Address"
        name="place"
        address={values.place}
        home={home}
        troubles={Object.fromEntries(places.filter(([, words]) => words))}
        onChange={(place) => set({ place })}
      />
      <div className="grid gap-4 sm:grid-cols-2">
        <Field
          label="Phone"
          placeholder="like the business’s"
          value={values.phone}
          error={at('phone')}
          onChange={(event) => set({ phone: event.target.value })}
        />
        <Field
          label="Tax number there"
          placeholder="like the business’s"
          value={values.taxNumber}
          error={at('taxNumber')}
          onChange={(event) => set({ taxNumber: event.target.value })}
        />
      </div>
      {known ? (
        <TickField
          label="Not offered any more"
          hint="What goes out from there already goes on so."
          checked={values.retired}
          onChange={(event) => set({ retired: event.target.checked })}
        />
      ) : null}
    </TypedDialog>
  );
}
