'use client';
import type { Fronts, TradingName } from '@/core/front/front';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { TypedDialog } from '../kit/form-dialog';
import { SelectField } from '../kit/select';
import { PictureField } from '../picture-field';
import { useFront } from './use-front';

/** A name under which the business trades: what of it stands on papers, pages and mails. */
export function TradingNameDialog({
  fronts,
  name,
  series,
  onClose,
}: {
  fronts: Fronts;
  name: TradingName;
  series: readonly string[];
  onClose: () => void;
}) {
  const { form, at, known } = useFront(fronts, 'tradingNames', name, onClose);
  const { values, set } = form;
  return (
    <TypedDialog
      of={form}
      title={known ? name.name : 'A trading name'}
      about="What was asked under it before stays as it went out."
      action="Save it"
      onClose={() => {
        form.leave();
        onClose();
      }}
    >
      <Field
        label="Name"
        maxLength={160}
        value={values.name}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <PictureField name="logo" purpose="logo" fileId={values.logoId} onPicture={(logoId) => set({ logoId })} />
      <div className="grid gap-4 sm:grid-cols-2">
        <div>
          <label className="label mb-1" htmlFor="front-accent">
            Colour of its documents
          </label>
          <input
            id="front-accent"
            type="color"
            className="h-9 w-14"
            value={values.accent}
            onChange={(event) => set({ accent: event.target.value })}
          />
        </div>
        <SelectField
          label="Numbers of its invoices"
          value={values.series}
          error={at('series')}
          onChange={(event) => set({ series: event.target.value })}
        >
          <option value="">like the business’s</option>
          {[...new Set([...series, values.series])].filter(Boolean).map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </SelectField>
        <Field
          label="Reply address"
          type="email"
          placeholder="like the business’s"
          value={values.email}
          error={at('email')}
          onChange={(event) => set({ email: event.target.value })}
        />
        <Field
          label="Phone"
          placeholder="like the business’s"
          value={values.phone}
          error={at('phone')}
          onChange={(event) => set({ phone: event.target.value })}
        />
        <Field
          label="Website"
          placeholder="like the business’s"
          value={values.website}
          error={at('website')}
          onChange={(event) => set({ website: event.target.value })}
        />
      </div>
      {known ? (
        <TickField
          label="Not offered any more"
          hint="What goes out under it already goes on so."
          checked={values.retired}
          onChange={(event) => set({ retired: event.target.checked })}
        />
      ) : null}
    </TypedDialog>
  );
}
