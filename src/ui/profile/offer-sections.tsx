'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type ReceiptStyle, STAMP_PLACES, type Stamp } from '@/core/business/business';
import { FileDrop } from '../import/file-drop';
import { fileText } from '../import/file-text';
import { Button } from '../kit/button';
import { FieldError, TextField } from '../kit/field';
import { SelectField } from '../kit/select';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import { PictureField } from '../picture-field';

/** Heights that a signature or a seal is printed in, in millimetres. */
const HEIGHTS = [10, 14, 18, 24, 30, 40];

/** A signature or a seal: the picture, how high it is printed, and where. */
function StampField({
  name,
  stamp,
  onStamp,
}: {
  name: string;
  stamp: Stamp | null;
  onStamp: (stamp: Stamp | null) => void;
}) {
  return (
    <div className="grid gap-3">
      <PictureField
        name={name}
        purpose="seal"
        fileId={stamp?.fileId ?? null}
        onPicture={(fileId) => onStamp(fileId ? { heightMm: 18, at: 'left', ...stamp, fileId } : null)}
      />
      {stamp ? (
        <div className="grid grid-cols-2 gap-4">
          <SelectField
            label={`Height of the ${name}`}
            value={String(stamp.heightMm)}
            onChange={(event) => onStamp({ ...stamp, heightMm: Number(event.target.value) })}
          >
            {HEIGHTS.map((height) => (
              <option key={height} value={height}>
                {height} mm
              </option>
            ))}
          </SelectField>
          <SelectField
            label={`Place of the ${name}`}
            value={stamp.at}
            onChange={(event) => onStamp({ ...stamp, at: event.target.value as Stamp['at'] })}
          >
            {STAMP_PLACES.map((place) => (
              <option key={place} value={place}>
                {place[0]?.toUpperCase() + place.slice(1)}
              </option>
            ))}
          </SelectField>
        </div>
      ) : null}
    </div>
  );
}

/** What stands on receipts beside what was paid. */
export function ReceiptSection({ style, mayAsk }: { style: ReceiptStyle; mayAsk: boolean }) {
  const router = useRouter();
  const [fields, setFields] = useState(style);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<ReceiptStyle>) => setFields((before) => ({ ...before, ...part }));
  async function keep() {
    setBusy(true);
    const answer = await send('PUT', '/api/profile/receipts', fields);
    setBusy(false);
    setTrouble(answer.ok ? '' : answer.words);
    if (!answer.ok) return;
    say('Receipts say so from now on');
    router.refresh();
  }
  return (
    <section className="mt-6" aria-label="Receipts">
      <h2 className="title-section border-b border-ink pb-1">Receipts</h2>
      <fieldset disabled={!mayAsk} className="mt-3 grid gap-4">
        <div className="grid gap-4 sm:grid-cols-2">
          <TextField
            label="Registration data"
            hint="Stands at the head, below the tax number."
            value={fields.registration}
            maxLength={600}
            onChange={(event) => set({ registration: event.target.value })}
          />
          <TextField
            label="Signed by"
            hint="Stands at the end: a name, an office."
            value={fields.signer}
            maxLength={300}
            onChange={(event) => set({ signer: event.target.value })}
          />
        </div>
        <TextField
          label="Statement on receipts for donations"
          hint="In the words that your country asks for."
          value={fields.statement}
          maxLength={2000}
          onChange={(event) => set({ statement: event.target.value })}
        />
        <div className="grid items-start gap-4 sm:grid-cols-2">
          <StampField name="signature" stamp={fields.signature} onStamp={(signature) => set({ signature })} />
          <StampField name="seal" stamp={fields.seal} onStamp={(seal) => set({ seal })} />
        </div>
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <p className="flex items-center gap-5">
          <Button disabled={busy || !mayAsk} onClick={() => void keep()}>
            Save for receipts
          </Button>
          <a className="link" href="/files/receipt-sample" target="_blank" rel="noreferrer">
            See a sample
          </a>
        </p>
      </fieldset>
    </section>
  );
}

/** The rates of exchange that hold today, and where newer ones are brought in. */
export function RatesSection({
  rates,
  mayAsk,
}: {
  rates: {
    readonly on: string;
    readonly source: string;
    readonly perEuro: Readonly<Record<string, string>>;
    /** In days, where that is more than a week. */
    readonly age: number | null;
  } | null;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  async function bring(file: File) {
    const text = await fileText(file);
    const answer = await send<{ days: number; latest: string; currencies: number }>('POST', '/api/rates', {
      name: file.name,
      text,
    });
    setTrouble(answer.ok ? '' : answer.words);
    if (!answer.ok) return;
    const { days, latest, currencies } = answer.value;
    say(`${currencies} rates of ${latest} are saved${days > 1 ? `, and ${days - 1} days before` : ''}`);
    router.refresh();
  }
  return (
    <section className="mt-6" aria-label="Rates of exchange">
      <h2 className="title-section border-b border-ink pb-1">Rates of exchange</h2>
      <p className="mt-2">
        {rates
          ? `One euro, on ${rates.on}: ${Object.entries(rates.perEuro)
              .slice(0, 8)
              .map(([code, rate]) => `${rate} ${code}`)
              .join(', ')}. From ${rates.source}.`
          : 'None yet. Prices in further currencies are then only those that you give by hand.'}
      </p>
      {rates?.age ? (
        <p className="mt-1 text-ochre">
          They are {rates.age} days old. Payers are told so with every price that is converted: drop a newer file below.
        </p>
      ) : null}
      {mayAsk ? (
        <div className="mt-3">
          <FileDrop label="Euro reference rates, XML or CSV" accept=".xml,.csv" onFile={(file) => void bring(file)} />
        </div>
      ) : null}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </section>
  );
}

/** What the business's own website checks signatures with. */
export function SecretSection({ secret }: { secret: string }) {
  const [shown, setShown] = useState(false);
  return (
    <section className="mt-6" aria-label="Signature">
      <h2 className="title-section border-b border-ink pb-1">Signature</h2>
      <p className="mt-2 max-w-[72ch]">
        Payers who are led back to your website bring <code>reference</code>, <code>amount</code>, <code>currency</code>{' '}
        and <code>signature</code>: HMAC-SHA256 in hexadecimal over <code>reference.amount.currency</code>, under this
        secret. Keep it on your server.
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-4">
        {shown ? <code className="private break-all">{secret}</code> : null}
        <Button look="link" onClick={() => setShown(!shown)}>
          {shown ? 'Hide it' : 'Show the secret'}
        </Button>
      </p>
    </section>
  );
}
