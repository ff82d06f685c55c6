'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import type { WorkAct } from './work-row';

/** A message that did not arrive is sent once more, to the same address or a better one, or is let be. */
export function SendAnew({
  act,
  look,
}: {
  act: Extract<WorkAct, { do: 'resend' }>;
  look: 'go' | 'plain' | 'small-link';
}) {
  const { busy, press, pressed } = usePress();
  const [open, setOpen] = useState(false);
  const [address, setAddress] = useState(act.address);
  const [keep, setKeep] = useState(true);
  const changed = address.trim() !== act.address;
  const path = `/api/messages/${act.messageId}`;
  return (
    <>
      <Button look={look} onClick={() => setOpen(true)}>
        Send again
      </Button>
      <FormDialog
        open={open}
        title="Send again"
        about={`It did not arrive: ${act.what}.`}
        action="Send"
        busy={busy}
        disabled={!address.trim()}
        onClose={() => setOpen(false)}
        onSure={async () => {
          const words = `On its way to ${address.trim()}`;
          const answer = await press(path, { address, keep: keep && changed && act.customer }, words);
          if (answer.ok) setOpen(false);
          return troubleOf(answer);
        }}
      >
        <Field
          label={act.way === 'mail' ? 'E-mail address' : 'Phone'}
          type={act.way === 'mail' ? 'email' : 'tel'}
          autoFocus
          maxLength={254}
          value={address}
          onChange={(event) => setAddress(event.target.value)}
        />
        {act.customer && changed ? (
          <TickField
            label="The customer has this address from now on"
            checked={keep}
            onChange={(event) => setKeep(event.target.checked)}
          />
        ) : null}
        <p className="small text-soft">
          Settled another way?{' '}
          <Button
            look="small-link"
            disabled={busy}
            onClick={() => void pressed(path, {}, 'Off the list', 'DELETE').then(() => setOpen(false))}
          >
            Remove it from this list
          </Button>
        </p>
      </FormDialog>
    </>
  );
}
