'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import { addressLines } from '@/core/place/address';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { useMakeAndOpen } from '../make-and-open';
import { RegisterLink } from '../register/register-link';
import { CustomerForm } from './customer-form';

const LANGUAGE: Readonly<Record<string, string>> = { en: 'English', de: 'German', fr: 'French', es: 'Spanish' };

function Fact({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="min-w-0">
      <dt className="label">{label}</dt>
      <dd className="private document whitespace-pre-line break-words">{children}</dd>
    </div>
  );
}

/** A customer on file: how they are reached, what they owe, who else they may be; changed in place. */
export function CustomerSheet({
  customer,
  alike,
  home,
  locale,
  erased,
  mayAsk,
  children,
}: {
  customer: Customer;
  alike: readonly Customer[];
  home: string;
  locale: string;
  /** When they were erased, written; empty for who was not. */
  erased: string;
  mayAsk: boolean;
  children: ReactNode;
}) {
  const router = useRouter();
  const [changing, setChanging] = useState(false);
  const [merging, setMerging] = useState<Customer | null>(null);
  const [busy, setBusy] = useState(false);
  const { busy: opening, compose } = useMakeAndOpen();

  async function merge(other: Customer) {
    setBusy(true);
    const answer = await send('POST', `/api/customers/${customer.id}/merge`, { otherId: other.id });
    setBusy(false);
    setMerging(null);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${other.name} and ${customer.name} are one customer now`);
    router.refresh();
  }

  const address = (at: Customer['billing']) => addressLines(at, home, locale).join('\n');
  return (
    <article className="sheet max-w-[760px] px-7 py-5" aria-label={customer.name}>
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
        <h1 className="title-screen private min-w-0 flex-1 break-words">{customer.name}</h1>
        {mayAsk && !changing ? (
          <>
            <Button look="link" opens onClick={() => setChanging(true)}>
              Edit
            </Button>
            <Button look="go" disabled={opening} onClick={() => void compose({ customerId: customer.id })}>
              New invoice
            </Button>
          </>
        ) : null}
      </div>
      {changing ? (
        <div className="mt-4">
          <CustomerForm
            customer={customer}
            home={home}
            onLeave={() => setChanging(false)}
            onDone={() => {
              setChanging(false);
              say('The changes are saved');
              router.refresh();
            }}
          />
        </div>
      ) : (
        <>
          {alike.length > 0 ? (
            <div className="mt-3 bg-ochre-tint px-3.5 py-2">
              {alike.map((other) => (
                <p key={other.id} className="flex flex-wrap items-baseline gap-x-3">
                  <span>
                    Perhaps the same: <b className="private font-medium">{other.name}</b>{' '}
                    <span className="private text-soft">{other.email}</span>
                  </span>
                  {mayAsk ? (
                    <Button look="link" onClick={() => setMerging(other)}>
                      Merge
                    </Button>
                  ) : null}
                </p>
              ))}
            </div>
          ) : null}
          {erased ? (
            <p className="mt-3 bg-ochre-tint px-3.5 py-2">
              Erased on {erased}. What was sold stays in the books; papers that the law wants kept name them until their
              time is over.
            </p>
          ) : (
            <dl className="mt-4 grid gap-x-6 gap-y-3 sm:grid-cols-3">
              <Fact label="E-mail">{[customer.email || 'none', ...customer.copies].join('\n')}</Fact>
              <Fact label="Phone">{customer.phone || 'none'}</Fact>
              <Fact label="Billing address">{address(customer.billing) || 'none'}</Fact>
              {customer.delivery ? <Fact label="Delivery address">{address(customer.delivery)}</Fact> : null}
              {customer.language || customer.currency ? (
                <Fact label="Language and currency">
                  {[LANGUAGE[customer.language], customer.currency].filter(Boolean).join(', ')}
                </Fact>
              ) : null}
              {customer.taxNumber ? <Fact label="Tax number">{customer.taxNumber}</Fact> : null}
              {customer.groups.length > 0 ? <Fact label="Groups">{customer.groups.join(', ')}</Fact> : null}
              {customer.note ? <Fact label="Private note">{customer.note}</Fact> : null}
            </dl>
          )}
          <div className="mb-1 mt-6 flex items-baseline justify-between">
            <h2 className="title-section">Invoices</h2>
            <span className="flex gap-4">
              <RegisterLink of="customerId" id={customer.id} called={customer.name} />
              <Link className="link" href={`/records/customers/${customer.id}/statement` as Route}>
                Statement of account
              </Link>
            </span>
          </div>
          {children}
        </>
      )}
      <Dialog
        open={merging !== null}
        onOpenChange={(open) => !open && setMerging(null)}
        title="Merge these two customers?"
        about="Invoices and payments of both stay, under the name that is open here. This cannot be taken back."
      >
        <p className="document">
          <span className="private">{merging?.name}</span> joins <span className="private">{customer.name}</span>. What
          is open here is filled from there; further e-mail addresses become copies.
        </p>
        <div className="mt-5 flex justify-end gap-3">
          <Button onClick={() => setMerging(null)}>Leave both</Button>
          <Button look="go" disabled={busy} onClick={() => merging && void merge(merging)}>
            Merge
          </Button>
        </div>
      </Dialog>
    </article>
  );
}
