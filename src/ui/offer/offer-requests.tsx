'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, TextField } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { NumberField } from '../kit/number-input';
import { SelectField } from '../kit/select';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { Rosette } from '../rosette';

const STATES = { sent: 'Sent', seen: 'Seen', paid: 'Paid', withdrawn: 'Cancelled' } as const;
const WORDS = { sent: 'Sent', seen: 'Seen', paid: 'Paid', withdrawn: 'Withdrawn' } as const;

type Row = {
  readonly id: string;
  readonly toName: string;
  readonly state: keyof typeof STATES;
  /** The message has not arrived, and nobody has followed the link. */
  readonly failed: boolean;
  readonly when: string;
  readonly amount: string;
  readonly link: string;
};

const BLANK = { toName: '', toAddress: '', amount: '', answers: {}, locked: true, way: 'mail', words: '' } as {
  toName: string;
  toAddress: string;
  amount: string;
  answers: Record<string, string>;
  locked: boolean;
  way: 'mail' | 'text' | 'chat' | 'link';
  words: string;
};

/** The same offer for one person each, with some of it filled in; followed until it is paid or withdrawn. */
export function OfferRequests({
  offerId,
  open,
  currency,
  takesAmount,
  fields,
  mayAsk,
  rows,
}: {
  offerId: string;
  /** Whether a request can be sent now. */
  open: boolean;
  currency: string;
  takesAmount: boolean;
  fields: readonly { readonly id: string; readonly label: string }[];
  mayAsk: boolean;
  rows: readonly Row[];
}) {
  const router = useRouter();
  const [writing, setWriting] = useState(false);
  const [busy, setBusy] = useState(false);
  const [draft, setDraft] = useState(BLANK);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const set = (part: Partial<typeof BLANK>) => setDraft((before) => ({ ...before, ...part }));

  async function copy(link: string) {
    await navigator.clipboard.writeText(link).then(
      () => say('The link is copied'),
      () => sayTrouble('This browser does not let the link be copied.'),
    );
  }
  async function withdraw(row: Row) {
    const answer = await send('POST', `/api/requests/${row.id}/withdraw`, {});
    if (!answer.ok) return sayTrouble(answer.words);
    say(`The request to ${row.toName} is withdrawn`);
    router.refresh();
  }
  if (rows.length === 0 && !(open && mayAsk)) return null;
  return (
    <section aria-label="Requests" className="mt-6">
      <div className="flex items-baseline gap-4 border-b border-ink pb-1">
        <h2 className="title-section flex-1">Requests</h2>
        {open && mayAsk ? (
          <>
            <Button
              look="link"
              onClick={() => {
                set({ way: 'chat' });
                setWriting(true);
              }}
            >
              By chat
            </Button>
            <Button look="link" opens onClick={() => setWriting(true)}>
              Ask one person
            </Button>
          </>
        ) : null}
      </div>
      {rows.length === 0 ? (
        <p className="py-3 text-soft">Send the same to one person, with their name and the sum filled in.</p>
      ) : null}
      <ul>
        {rows.map((row) => (
          <li
            key={row.id}
            className="grid min-h-[44px] grid-cols-[34px_minmax(0,1fr)_auto] items-center border-b border-rule"
          >
            <Rosette state={STATES[row.state]} share={row.state === 'paid' ? 1 : 0} size={22} />
            <span className="min-w-0">
              <span className="private block truncate font-serif text-[16px]/5">{row.toName}</span>
              <span className="block text-[12.5px]/[17px] text-soft">
                {row.failed ? <b className="font-medium text-brick">Not delivered</b> : WORDS[row.state]} {row.when}
                {row.amount ? ` · ${row.amount} ${currency}` : ''}
              </span>
            </span>
            {row.state === 'sent' || row.state === 'seen' ? (
              <span className="flex gap-4">
                <Button look="small-link" onClick={() => void copy(row.link)}>
                  Copy link
                </Button>
                {mayAsk ? (
                  <Button look="small-link" onClick={() => void withdraw(row)}>
                    Withdraw
                  </Button>
                ) : null}
              </span>
            ) : null}
          </li>
        ))}
      </ul>
      <FormDialog
        open={writing}
        title="Ask one person"
        about="They get the same page with what you fill in here."
        action={draft.way === 'link' ? 'Make the request' : 'Send the request'}
        busy={busy}
        onClose={() => setWriting(false)}
        onSure={async () => {
          setBusy(true);
          const answer = await send<{ id: string; sign: string }>('POST', `/api/offers/${offerId}/requests`, draft);
          setBusy(false);
          setTroubles(answer.ok ? {} : Object.fromEntries(answer.fields.map(({ field, words }) => [field, words])));
          if (!answer.ok) return troubleOf(answer);
          setWriting(false);
          setDraft(BLANK);
          say(draft.way === 'link' ? 'The request is made: copy its link' : 'The request is on its way');
          router.refresh();
          return '';
        }}
      >
        <div className="grid grid-cols-2 gap-3">
          <Field
            label="Name"
            value={draft.toName}
            maxLength={160}
            onChange={(event) => set({ toName: event.target.value })}
          />
          <SelectField
            label="How"
            value={draft.way}
            onChange={(event) => set({ way: event.target.value as typeof draft.way })}
          >
            <option value="mail">by e-mail</option>
            <option value="text">by text message</option>
            <option value="chat">by chat message</option>
            <option value="link">I pass the link on</option>
          </SelectField>
        </div>
        {draft.way === 'link' ? null : (
          <Field
            label={draft.way === 'mail' ? 'E-mail address' : 'Phone'}
            value={draft.toAddress}
            maxLength={200}
            onChange={(event) => set({ toAddress: event.target.value })}
          />
        )}
        {takesAmount ? (
          <NumberField
            label={`Amount, ${currency}`}
            value={draft.amount}
            error={troubles.amount ?? troubles.total}
            onChange={(event) => set({ amount: event.target.value })}
          />
        ) : null}
        {fields.map((field) => (
          <Field
            key={field.id}
            label={field.label}
            value={draft.answers[field.id] ?? ''}
            error={troubles[`answers.${field.id}`]}
            onChange={(event) => {
              const { [field.id]: _, ...rest } = draft.answers;
              set({ answers: event.target.value ? { ...rest, [field.id]: event.target.value } : rest });
            }}
          />
        ))}
        <TextField
          label="Your words to them"
          value={draft.words}
          maxLength={2000}
          onChange={(event) => set({ words: event.target.value })}
        />
        <TickField
          label="They cannot change what you filled in"
          checked={draft.locked}
          onChange={(event) => set({ locked: event.target.checked })}
        />
      </FormDialog>
    </section>
  );
}
