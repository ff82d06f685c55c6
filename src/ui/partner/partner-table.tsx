'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { Button } from '../kit/button';
import { Empty } from '../kit/empty';
import { OwnersOnly } from '../kit/owners-only';
import { usePress } from '../kit/press';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { RegisterLink } from '../register/register-link';
import { PartnerDialog, type ShownPartner } from './partner-dialog';

/** Who gets a share of payments, and what they have earned. */
export function PartnerTable({
  partners,
  locale,
  mayAsk,
  begins,
  children,
}: {
  partners: readonly ShownPartner[];
  locale: string;
  mayAsk: boolean;
  /** A new one is written from the start. */
  begins: boolean;
  /** What stands below the list. */
  children: ReactNode;
}) {
  const router = useRouter();
  const { busy, pressed } = usePress({ keyed: true });
  /** The partner who is written: null for a new one. */
  const [editing, setEditing] = useState<ShownPartner | null | undefined>(begins && mayAsk ? null : undefined);

  async function remove(partner: ShownPartner) {
    const answer = await send('DELETE', `/api/partners/${partner.id}`);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${partner.name} is removed from the list`);
    router.refresh();
  }

  return (
    <div className="mx-auto max-w-[920px] px-4 pb-10 sm:px-7">
      <div className="flex items-baseline gap-4 pb-3">
        <h1 className="title-screen flex-1">Partners</h1>
        <Link className="link" href={'/money/payouts/accounts' as Route}>
          Their accounts
        </Link>
        {mayAsk ? (
          <Button look="go" onClick={() => setEditing(null)}>
            New partner
          </Button>
        ) : null}
      </div>
      <OwnersOnly may={mayAsk} />
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
                <span className="private block truncate text-soft">{partner.email}</span>
              </span>
              <span className="text-right">
                {partner.sums.length === 0 ? <span className="block text-soft">nothing earned yet</span> : null}
                {partner.sums.length > 0 ? <RegisterLink of="partnerId" id={partner.id} called={partner.name} /> : null}
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
                    {partner.email ? (
                      <Button
                        look="small-link"
                        aria-label={`Mail ${partner.name} their page`}
                        disabled={busy}
                        onClick={() =>
                          void pressed(
                            `/api/partners/${partner.id}/link`,
                            {},
                            `${partner.name} gets the link to their page`,
                          )
                        }
                      >
                        Mail their page
                      </Button>
                    ) : null}
                    <Button look="small-link" aria-label={`Edit ${partner.name}`} onClick={() => setEditing(partner)}>
                      Edit
                    </Button>
                    <Button
                      look="small-link"
                      aria-label={`Remove ${partner.name}`}
                      onClick={() => void remove(partner)}
                    >
                      Remove
                    </Button>
                  </span>
                ) : null}
              </span>
            </li>
          ))}
        </ul>
      )}
      {children}
      {editing === undefined ? null : <PartnerDialog partner={editing} onClose={() => setEditing(undefined)} />}
    </div>
  );
}
