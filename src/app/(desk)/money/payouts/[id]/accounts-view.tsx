import { USUAL_CURRENCIES } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';
import { disputeRuleOf } from '@/core/payout/policy';
import { mayDo } from '@/core/person/rights';
import type { Actor } from '@/flows/door/rights';
import { payoutList } from '@/flows/payout/payout-list';
import { partnerList } from '@/flows/records/partners';
import { OwnersOnly } from '@/ui/kit/owners-only';
import { type AccountShown, AccountsOf } from '@/ui/payout/accounts-of';
import { PolicyForm } from '@/ui/payout/policy-form';

/** When money goes out, and to where: of the business, and of each partner. */
export async function AccountsView({ actor }: { actor: Actor }) {
  const { business, policy, accounts } = await payoutList(actor);
  const partners = await partnerList(actor);
  const may = mayDo(actor, 'settings');
  const currencies = [...new Set([business.currency, ...USUAL_CURRENCIES])];
  const of = (partnerId: string | null): AccountShown[] =>
    accounts
      .filter((one) => one.partnerId === partnerId)
      .map(({ id, currency, number, holder, state, reason }) => ({ id, currency, number, holder, state, reason }));
  return (
    <article className="sheet max-w-[640px] px-[26px] pb-7 pt-5" aria-label="When and where money goes out">
      <h1 className="title-screen">When and where money goes out</h1>
      <p className="document pb-2">
        What customers pay by card is paid out to accounts that are confirmed: two small sums come to each, and are
        typed in here.
      </p>
      <OwnersOnly may={may} />
      <PolicyForm
        when={policy.when}
        smallest={Object.entries(policy.smallest).map(([currency, minor]) => ({
          currency,
          sum: plainSum(BigInt(minor), currency),
        }))}
        disputes={disputeRuleOf(policy)}
        currency={business.currency}
        may={may}
      />
      <h2 className="title-section mt-7 border-b border-ink pb-1">Your accounts</h2>
      <AccountsOf partnerId={null} accounts={of(null)} currencies={currencies} currency={business.currency} may={may} />
      {partners.map((partner) => (
        <section key={partner.id} aria-label={`Accounts of ${partner.name}`}>
          <h2 className="title-section mt-7 border-b border-ink pb-1">
            <span className="private">{partner.name}</span>
          </h2>
          <AccountsOf
            partnerId={partner.id}
            accounts={of(partner.id)}
            currencies={currencies}
            currency={business.currency}
            may={may}
            askBy={partner.email}
          />
        </section>
      ))}
    </article>
  );
}
