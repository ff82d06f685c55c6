'use client';
import { ConfirmForm } from './confirm-form';
import { GiveAccount } from './give-account';

type Shown = {
  readonly id: string;
  readonly currency: string;
  /** The last digits: whoever finds the link shall not learn the number. */
  readonly ending: string;
  readonly state: 'checking' | 'checked' | 'refused' | 'left';
  readonly why: string;
};

/** A partner's accounts on their own page: given and confirmed by themselves. */
export function PartnerAccounts({
  token,
  accounts,
  currencies,
  currency,
}: {
  token: string;
  accounts: readonly Shown[];
  currencies: readonly string[];
  currency: string;
}) {
  const path = `/api/partner/${token}`;
  return (
    <>
      <ul>
        {accounts.map(({ id, currency: code, ending, state, why }) => (
          <li key={id} className="border-b border-rule py-2.5 text-[15px]">
            <span className="font-semibold">{code}</span> ·{ending}{' '}
            <span className={state === 'checked' ? 'text-leaf' : state === 'refused' ? 'text-brick' : 'text-ochre'}>
              {state === 'checked' ? 'confirmed' : state === 'refused' ? `not used: ${why}` : 'to be confirmed'}
            </span>
            {state === 'checking' ? (
              <ConfirmForm
                currency={code}
                path={path}
                bodyOf={(sums) => ({ action: 'confirm', accountId: id, sums })}
              />
            ) : null}
          </li>
        ))}
      </ul>
      <p className="pt-3 text-soft">
        {accounts.some(({ state }) => state === 'checked')
          ? 'To be paid elsewhere, give another account; this one stays in use until that is confirmed.'
          : 'Your part waits until there is an account that is confirmed.'}
      </p>
      <GiveAccount
        currencies={currencies}
        currency={currency}
        path={path}
        bodyOf={(given) => ({ action: 'give', ...given })}
      />
    </>
  );
}
