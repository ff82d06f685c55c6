'use client';
import { useState } from 'react';
import type { CustomsForm } from '@/core/customs/form';
import type { LabelSheet } from '@/core/parcel/profile';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { PrintLabels } from '../pack/print-labels';

/** What can be done about a shipment: its label again, or given back. */
export function ShipmentActions({
  id,
  name,
  canGiveBack,
  hasLabel,
  customsForm,
  sheet,
  own,
}: {
  id: string;
  name: string;
  canGiveBack: boolean;
  hasLabel: boolean;
  /** The form that goes with it; empty where no border asks. */
  customsForm: CustomsForm;
  sheet: LabelSheet;
  own: { widthMm: number; heightMm: number };
}) {
  const [open, setOpen] = useState<'print' | 'give-back' | null>(null);
  const { busy, press } = usePress();
  return (
    <>
      {hasLabel ? (
        <Button look="link" onClick={() => setOpen('print')}>
          Label again
        </Button>
      ) : null}
      <a className="link" href={`/api/parcels/slips?ids=${id}`} target="_blank" rel="noreferrer">
        Packing slip
      </a>
      {hasLabel && customsForm ? (
        <a className="link" href={`/api/parcels/customs?ids=${id}`} target="_blank" rel="noreferrer">
          {customsForm === 'cn22' ? 'CN 22' : 'CN 23'}
        </a>
      ) : null}
      {canGiveBack ? (
        <Button look="link" onClick={() => setOpen('give-back')}>
          Give the label back
        </Button>
      ) : null}
      {open === 'print' ? (
        <PrintLabels
          ids={[id]}
          declared={customsForm ? [id] : []}
          usual={sheet}
          own={own}
          onClose={() => setOpen(null)}
        />
      ) : null}
      {open === 'give-back' ? (
        <FormDialog
          title={`Give the label for ${name} back`}
          about="The carrier pays it back onto your balance, and what is in the parcel waits to be packed again. The label must not be used."
          action="Give it back"
          danger
          busy={busy}
          onClose={() => setOpen(null)}
          onSure={async () => {
            const answer = await press(`/api/parcels/${id}`, {}, 'The label is given back', 'DELETE');
            if (answer.ok) setOpen(null);
            return troubleOf(answer);
          }}
        >
          {null}
        </FormDialog>
      ) : null}
    </>
  );
}
