import type { Route } from 'next';
import Link from 'next/link';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import type { GatheringSheet } from '@/flows/payout/payout-sheet';
import { Amount } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { PayOutNow } from '@/ui/payout/pay-out-now';
import { Rosette } from '@/ui/rosette';
import { paymentsHref, Worked } from './worked';

/** When it goes out, or why not. */
function When({ sheet: { gathering, business } }: { sheet: GatheringSheet }) {
  const { on, tooLittle, hasAccount, partnerId } = gathering;
  const accounts = (
    <Link className="link" href={'/money/payouts/accounts' as Route}>
      {partnerId ? 'Give their account' : 'Give an account'}
    </Link>
  );
  if (!hasAccount)
    return (
      <p>
        <b className="font-semibold text-ochre">No confirmed account</b> for {gathering.currency} yet: it waits.{' '}
        {accounts}
      </p>
    );
  const date = on ? shortDate(on, business.deskLocale, { weekday: true }) : '';
  if (tooLittle)
    return <p>{date ? `On ${date} that` : 'That'} is too little to pay out: it is carried on to the date after.</p>;
  return <p>{date ? `Goes out on ${date}, with what closes until then.` : 'Goes out when you pay it out.'}</p>;
}

/** What gathers for the next payout, worked out as far as days are closed. */
export function GatheringView({ sheet, mayPay }: { sheet: GatheringSheet; mayPay: boolean }) {
  const { business, gathering, days, currency } = sheet;
  const { deskLocale: locale } = business;
  const sum = <Amount minor={jsonMinor(gathering.minor)} currency={currency} locale={locale} />;
  return (
    <article className="sheet max-w-[600px] px-[26px] pb-6" aria-label="What gathers for the next payout">
      <div className="grid grid-cols-[60px_minmax(0,1fr)] items-center pb-2 pt-4">
        <Rosette state={gathering.hasAccount ? 'Open' : 'Pending'} share={0} size={48} />
        <div>
          <h1 className="font-serif text-[30px]/[34px] font-medium">
            {sum} <span className="text-[19px] text-soft">so far</span>
          </h1>
          <When sheet={sheet} />
        </div>
      </div>
      <h2 className="title-section border-b border-ink pb-1">
        Next payout{gathering.partner ? ' to ' : ''}
        <span className="private">{gathering.partner}</span>
      </h2>
      <div className="pt-2">
        <Worked sheet={sheet} />
      </div>
      <Leader label="So far" className="document rule-total mt-2 py-0.5 text-[18px]/[29px] font-semibold">
        {sum}
      </Leader>
      <div className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-rule pt-3">
        {mayPay && gathering.hasAccount && !gathering.tooLittle ? <PayOutNow /> : null}
        {gathering.partnerId || days.length === 0 ? null : (
          <Link className="link" href={paymentsHref(sheet)}>
            See the payments
          </Link>
        )}
      </div>
    </article>
  );
}
