'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { Empty } from '../empty';
import { Field } from '../field';
import { FormDialog } from '../form-dialog';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';

type Partner = {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly account: string;
  readonly sums: readonly { readonly currency: string; readonly payments: number; readonly earnedMinor: number }[];
};

type Form = Pick<Partner, 'name' | 'email' | 'account'>;

/** Who gets a share of payments, and what they have earned. */
export function PartnerTable({
  partners,
  locale,
  mayAsk,
}: {
  partners: readonly Partner[];
  locale: string;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [editing, setEditing] = useState<{ id: string | null; form: Form } | null>(null);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  /** What the bank says of the account that was typed last. */
  const [bank, setBank] = useState('');
  const set = (part: Partial<Form>) => setEditing((now) => now && { ...now, form: { ...now.form, ...part } });

  async function keep(): Promise<string> {
    if (!editing) return '';
    setBusy(true);
    const path = editing.id ? `/api/partners/${editing.id}` : '/api/partners';
    const answer = await send(editing.id ? 'PUT' : 'POST', path, editing.form);
    setBusy(false);
    if (!answer.ok) {
      setTroubles(Object.fromEntries(answer.fields.map(({ field, words }) => [field, words])));
      return troubleOf(answer);
    }
    setEditing(null);
    setTroubles({});
    say(`${editing.form.name} is kept`);
    router.refresh();
    return '';
  }

  async function askBank(number: string) {
    setTroubles({});
    if (!number.trim()) return setBank('');
    const answer = await send<{ holder: string }>('GET', `/api/partners/account?number=${encodeURIComponent(number)}`);
    if (answer.ok) setBank(`The bank has it in the name of ${answer.value.holder}.`);
    else {
      setBank('');
      setTroubles({ account: troubleOf(answer) });
    }
  }

  async function remove(partner: Partner) {
    const answer = await send('DELETE', `/api/partners/${partner.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${partner.name} is taken off the list`);
    router.refresh();
  }

  return (
    <div className="mx-auto max-w-[920px] px-4 pb-10 sm:px-7">
      <div className="flex items-baseline gap-4 pb-3">
        <h1 className="title-screen flex-1">Partners</h1>
        {mayAsk ? (
          <button
            type="button"
            className="btn btn-go"
            onClick={() => setEditing({ id: null, form: { name: '', email: '', account: '' } })}
          >
            New partner
          </button>
        ) : null}
      </div>
      {partners.length === 0 ? (
        <Empty words="No partner yet. A partner gets a share of what an offer brings in: a teacher, a fund, a guest." />
      ) : (
        <ul className="border-t border-ink">
          {partners.map((partner) => (
            <li
              key={partner.id}
              className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-4 border-b border-rule py-2.5"
            >
              <span className="min-w-0">
                <span className="name private block truncate">{partner.name}</span>
                <span className="private block truncate text-soft">
                  {[partner.email, partner.account ? `account ${partner.account.replace(/(.{4})(?=.)/g, '$1 ')}` : '']
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </span>
              <span className="text-right">
                {partner.sums.length === 0 ? <span className="block text-soft">nothing earned yet</span> : null}
                {partner.sums.map((sum) => (
                  <span key={sum.currency} className="block">
                    <span className="private font-serif text-[16.5px]">
                      {moneyText(money(BigInt(sum.earnedMinor), sum.currency), locale)}
                    </span>
                    <span className="text-soft">
                      {' '}
                      earned from {sum.payments} payment{sum.payments === 1 ? '' : 's'}
                    </span>
                  </span>
                ))}
                {mayAsk ? (
                  <span className="mt-0.5 inline-flex gap-4">
                    <button
                      type="button"
                      className="link link-small"
                      aria-label={`Change ${partner.name}`}
                      onClick={() =>
                        setEditing({
                          id: partner.id,
                          form: { name: partner.name, email: partner.email, account: partner.account },
                        })
                      }
                    >
                      Change
                    </button>
                    <button
                      type="button"
                      className="link link-small"
                      aria-label={`Take ${partner.name} away`}
                      onClick={() => void remove(partner)}
                    >
                      Take away
                    </button>
                  </span>
                ) : null}
              </span>
            </li>
          ))}
        </ul>
      )}
      {editing ? (
        <FormDialog
          title={editing.id ? 'Change the partner' : 'New partner'}
          about="What they get of a payment is said in each offer."
          action="Keep partner"
          busy={busy}
          onClose={() => {
            setBank('');
            setEditing(null);
            setTroubles({});
          }}
          onSure={keep}
        >
          <Field
            label="Name"
            value={editing.form.name}
            maxLength={160}
            error={troubles.name}
            onChange={(event) => set({ name: event.target.value })}
          />
          <Field
            label="E-mail address"
            value={editing.form.email}
            maxLength={200}
            error={troubles.email}
            onChange={(event) => set({ email: event.target.value })}
          />
          <Field
            label="Share account"
            hint={bank || 'Twelve digits. The bank is asked whose it is; their share is paid out to it.'}
            error={troubles.account}
            onBlur={(event) => void askBank(event.target.value)}
            value={editing.form.account}
            maxLength={60}
            onChange={(event) => set({ account: event.target.value })}
          />
        </FormDialog>
      ) : null}
    </div>
  );
}
