'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { DateField } from '../kit/date-field';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** What can be done with a voucher at the desk: sent again, good for longer, stopped. */
export function VoucherActions({
  id,
  to,
  stopped,
  expiresOn,
}: {
  id: string;
  to: string;
  stopped: boolean;
  /** Its last day; empty for without end. */
  expiresOn: string;
}) {
  const { busy, press, pressed } = usePress({ keyed: true });
  const [dialog, setDialog] = useState<'send' | 'extend' | null>(null);
  const [address, setAddress] = useState(to);
  const [on, setOn] = useState(expiresOn);
  const path = `/api/vouchers/${id}`;
  const deed = (name: string, more: { on?: string; to?: string } = {}) => ({ deed: name, on: '', to: '', ...more });
  const end = () => setDialog(null);
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3">
      <Button onClick={() => setDialog('send')}>Send it again</Button>
      {expiresOn ? <Button onClick={() => setDialog('extend')}>Make it good for longer</Button> : null}
      <Button
        busy={busy}
        onClick={() =>
          void pressed(
            path,
            deed(stopped ? 'go-on' : 'stop'),
            stopped ? 'It can be used again' : 'It is stopped: nobody can pay with it',
          )
        }
      >
        {stopped ? 'Let it go on' : 'Stop it'}
      </Button>
      {dialog === 'send' ? (
        <FormDialog
          title="Send it again"
          about="The mail with the code and the paper, with all vouchers of the same purchase."
          action="Send"
          busy={busy}
          disabled={!address.trim()}
          onClose={end}
          onSure={async () => {
            const answer = await press(path, deed('send', { to: address.trim() }), `On its way to ${address.trim()}`);
            if (answer.ok) end();
            return troubleOf(answer);
          }}
        >
          <Field
            label="To"
            type="email"
            maxLength={200}
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
        </FormDialog>
      ) : null}
      {dialog === 'extend' ? (
        <FormDialog
          title="Make it good for longer"
          about="What is over already is worth again what it was."
          action="Keep"
          busy={busy}
          onClose={end}
          onSure={async () => {
            const answer = await press(path, deed('extend', { on }), 'It is good for longer');
            if (answer.ok) end();
            return troubleOf(answer);
          }}
        >
          <DateField label="New last day" value={on} onDay={(day) => setOn(day)} />
        </FormDialog>
      ) : null}
    </div>
  );
}
