'use client';
import { useState } from 'react';
import { weekdayName } from '@/core/dates/date-text';
import type { DeliverSettings, ToldOf } from '@/core/parcel/notice';
import { LABEL_SHEETS, type LabelSheet } from '@/core/parcel/profile';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { Segment } from '../kit/segment';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';

const TOLD: Readonly<Record<ToldOf, string>> = {
  left: 'That it left, on the mailing date',
  door: 'That it comes today',
  delivered: 'That it arrived',
  late: 'That it is late',
};

const SHEETS: Readonly<Record<LabelSheet, string>> = {
  a6: 'A6, one to a sheet',
  'a4-2': 'A4, two to a sheet',
  'a4-4': 'A4, four to a sheet',
  own: 'A roll of our own size',
};

/** When customers are told, on which days parcels leave, and on what labels are printed. */
export function DeliveringForm({ settings, mayChange }: { settings: DeliverSettings; mayChange: boolean }) {
  const [values, setValues] = useState(settings);
  const [trouble, setTrouble] = useState('');
  const locale = useDeskLocale();
  const { busy, press } = usePress();
  const set = (part: Partial<DeliverSettings>) => setValues({ ...values, ...part });
  return (
    <form
      className="grid gap-4 pt-3"
      onSubmit={async (event) => {
        event.preventDefault();
        setTrouble(troubleOf(await press('/api/delivering', values, 'How you deliver is saved', 'PUT')));
      }}
    >
      <fieldset disabled={!mayChange} className="grid min-w-0 gap-4">
        <fieldset className="grid gap-1.5">
          <legend className="label mb-1">Customers are told</legend>
          {(Object.keys(TOLD) as ToldOf[]).map((what) => (
            <TickField
              key={what}
              label={TOLD[what]}
              checked={values.tell[what]}
              onChange={(event) => set({ tell: { ...values.tell, [what]: event.target.checked } })}
            />
          ))}
        </fieldset>
        <div className="w-[110px]">
          <Field
            label="At"
            value={values.tellAt}
            maxLength={5}
            onChange={(event) => set({ tellAt: event.target.value })}
          />
        </div>
        <Segment
          label="A new parcel’s notice"
          value={values.usual}
          choices={[
            ['on-day', 'On the mailing date'],
            ['first-scan', 'With the first scan'],
            ['held', 'By hand'],
          ]}
          onChoose={(usual) => set({ usual })}
        />
        <fieldset>
          <legend className="label mb-1">Parcels leave on</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {[1, 2, 3, 4, 5, 6, 7].map((day) => (
              <TickField
                key={day}
                label={weekdayName(day, locale)}
                checked={values.mailDays.includes(day)}
                onChange={(event) =>
                  set({
                    mailDays: event.target.checked
                      ? [...values.mailDays, day].sort()
                      : values.mailDays.filter((one) => one !== day),
                  })
                }
              />
            ))}
          </div>
        </fieldset>
        <TickField
          label="Parcels of sales on account leave before they are paid"
          hint="Unless the customer, or the invoice, says otherwise"
          checked={values.shipsFirst}
          onChange={(event) => set({ shipsFirst: event.target.checked })}
        />
        <Field
          label="Customers can ask to send back for so many days"
          hint="From the day on which it came; 0 for not at all."
          inputMode="numeric"
          className="max-w-[320px]"
          value={String(values.returnDays)}
          onChange={(event) => set({ returnDays: Number(event.target.value.replace(/\D/g, '')) || 0 })}
        />
        <Field
          label="Customs reference"
          hint="An EORI, IOSS or tax number that stands on every customs form; empty for none."
          className="max-w-[320px]"
          maxLength={40}
          value={values.customsReference}
          onChange={(event) => set({ customsReference: event.target.value })}
        />
        <SelectField
          label="Labels are printed on"
          value={values.labelSheet}
          onChange={({ target }) => set({ labelSheet: LABEL_SHEETS.find((one) => one === target.value) ?? 'a6' })}
        >
          {LABEL_SHEETS.map((one) => (
            <option key={one} value={one}>
              {SHEETS[one]}
            </option>
          ))}
        </SelectField>
        {values.labelSheet === 'own' ? (
          <div className="grid gap-3 sm:grid-cols-2">
            {(['widthMm', 'heightMm'] as const).map((key) => (
              <Field
                key={key}
                label={key === 'widthMm' ? 'Own width (mm)' : 'Own height (mm)'}
                inputMode="numeric"
                value={String(values.ownLabel[key])}
                maxLength={3}
                onChange={(event) =>
                  set({ ownLabel: { ...values.ownLabel, [key]: Number(event.target.value.replace(/\D/g, '')) } })
                }
              />
            ))}
          </div>
        ) : null}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <p>
          <Button type="submit" busy={busy} busyWords="Saving">
            Save
          </Button>
        </p>
      </fieldset>
    </form>
  );
}
