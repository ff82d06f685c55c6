'use client';
import { useState } from 'react';
import { returnWords } from '@/core/payout/return-reasons';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { AskForAccount } from './ask-for-account';
import { ConfirmForm } from './confirm-form';
import { GiveAccount } from './give-account';

export type AccountShown = {
  readonly id: string;
  readonly currency: string;
  readonly number: string;
  readonly holder: string;
  readonly state: 'checking' | 'checked' | 'refused' | 'left';
  /** Why nothing goes there: the bank's code, or `credits`. */
  readonly reason: string;
};

const grouped = (number: string): string => number.replace(/(.{4})(?=.)/g, '$1 ');

/** How an account stands, in words. */
function standing({ state, reason }: AccountShown): string {
  if (state === 'checked') return 'Confirmed';
  if (state === 'checking') return 'Waits for its two small sums';
  return reason === 'credits' ? 'Not used: other sums were typed three times' : `Not used: ${returnWords(reason)}`;
}

/** The accounts of one payee, each with what is to be done about it, and a place to give another. */
export function AccountsOf({
  partnerId,
  accounts,
  currencies,
  currency,
  may,
  askBy = '',
}: {
  partnerId: string | null;
  accounts: readonly AccountShown[];
  currencies: readonly string[];
  currency: string;
  may: boolean;
  /** The partner's address, where they can be asked. */
  askBy?: string;
}) {
  const { busy, pressed } = usePress();
  const [giving, setGiving] = useState(false);
  return (
    <>
      {accounts.length === 0 ? <p className="py-2 text-soft">No account yet: what is to come waits.</p> : null}
      <ul>
        {accounts.map((account) => (
          <li key={account.id} className="border-b border-rule py-2.5">
            <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
              <span className="min-w-0 flex-1">
                <b className="font-semibold">{account.currency}</b>{' '}
                <span className="private font-serif text-[16px]">{grouped(account.number)}</span>{' '}
                <span className="private text-soft">{account.holder}</span>
              </span>
              <span
                className={
                  account.state === 'checked' ? 'text-leaf' : account.state === 'refused' ? 'text-brick' : 'text-ochre'
                }
              >
                {standing(account)}
              </span>
              {may ? (
                <Button
                  look="small-link"
                  disabled={busy}
                  aria-label={`Remove account ${account.number.slice(-4)}`}
                  onClick={() =>
                    void pressed(
                      `/api/payouts/accounts/${account.id}`,
                      {},
                      'Nothing is paid out to it any more',
                      'DELETE',
                    )
                  }
                >
                  Remove
                </Button>
              ) : null}
            </div>
            {may && account.state === 'checking' ? (
              <ConfirmForm
                currency={account.currency}
                path={`/api/payouts/accounts/${account.id}`}
                bodyOf={(sums) => ({ sums })}
              />
            ) : null}
          </li>
        ))}
      </ul>
      {may ? (
        giving ? (
          <GiveAccount
            currencies={currencies}
            currency={currency}
            path="/api/payouts/accounts"
            bodyOf={(given) => ({ partnerId, ...given })}
            holderPath="/api/payouts/accounts/holder"
            onClose={() => setGiving(false)}
          />
        ) : (
          <p className="flex flex-wrap gap-5 pt-2.5">
            <Button look="link" opens onClick={() => setGiving(true)}>
              {accounts.length > 0 ? 'Give another account' : 'Give an account'}
            </Button>
            {partnerId && askBy ? <AskForAccount partnerId={partnerId} partner="them" quiet /> : null}
          </p>
        )
      ) : null}
    </>
  );
}
