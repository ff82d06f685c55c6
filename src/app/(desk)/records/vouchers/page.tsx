import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { voucherList } from '@/flows/voucher/vouchers';
import { Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { Overview, OverviewPart } from '@/ui/kit/overview';
import { VoucherRuleForm } from '@/ui/voucher/voucher-rule-form';
import { jsonVoucherSums } from './voucher-row';

export const metadata: Metadata = { title: 'Vouchers' };

/** While none is chosen: what vouchers are still owed, and how long new ones are good. */
export default async function NoVoucherOpen() {
  const actor = await pageActor();
  const list = await voucherList(actor, { words: '', after: '' });
  const { deskLocale: locale } = list.business;
  return (
    <Overview label="Vouchers at a glance">
      <OverviewPart name="Owed by vouchers">
        {list.sums.length === 0 ? (
          <p className="py-3 text-soft">Nothing: none was sold.</p>
        ) : (
          jsonVoucherSums(list).map(({ currency, open, openMinor, soldMinor, usedMinor, expiredMinor }) => {
            const figure = (minor: number) => <Figure minor={minor} currency={currency} locale={locale} />;
            return (
              <div key={currency} className="document private max-w-[460px] pt-2 leading-7">
                <Leader label={`Sold, less what was refunded, ${currency}`}>{figure(soldMinor)}</Leader>
                <Leader label="Used">{figure(-usedMinor)}</Leader>
                {expiredMinor === 0 ? null : <Leader label="Over unused">{figure(-expiredMinor)}</Leader>}
                <Leader
                  label={open === 1 ? 'Owed by one voucher' : `Owed by ${open} vouchers`}
                  className="rule-total mt-1 py-0.5 text-[17px]/7 font-semibold"
                >
                  {figure(openMinor)}
                </Leader>
              </div>
            );
          })
        )}
      </OverviewPart>
      <OverviewPart name="How long they are good">
        <VoucherRuleForm rule={list.rule} mayAsk={mayDo(actor, 'settings')} />
      </OverviewPart>
    </Overview>
  );
}
