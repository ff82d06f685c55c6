import { jsonMinor } from '@/core/money/money';
import { METHOD_WORDS } from '@/core/payment/methods';
import type { PaymentOverview } from '@/flows/payment/payment-overview';
import { Amount } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { OverviewPart } from '@/ui/kit/overview';
import { CHANNEL_WORDS } from './json-payment';

const SPAN_WORDS: Readonly<Record<PaymentOverview['spans'][number]['span'], string>> = {
  today: 'Today',
  yesterday: 'Yesterday',
  'this-month': 'This month',
  'last-month': 'Last month',
};

/** What came in today, yesterday, this month and last. */
export function ReceivedPart({ spans, locale }: Pick<PaymentOverview, 'spans'> & { locale: string }) {
  return (
    <OverviewPart name="Received">
      <div className="document max-w-[460px] py-2.5 leading-7">
        {spans.map(({ span, sums }) => (
          <Leader key={span} label={SPAN_WORDS[span]}>
            {sums.map(({ currency, minor }, at) => (
              <span key={currency} className="private">
                {at > 0 ? ' + ' : ''}
                <Amount minor={jsonMinor(minor)} currency={currency} locale={locale} />
              </span>
            ))}
          </Leader>
        ))}
      </div>
    </OverviewPart>
  );
}

/** By which ways it came in this month. */
export function WaysPart({ ways, locale }: Pick<PaymentOverview, 'ways'> & { locale: string }) {
  if (ways.length === 0) return null;
  return (
    <OverviewPart name="This month, by way">
      <table className="w-full border-collapse">
        <tbody>
          {ways.map(({ channel, method, currency, count, minor }) => (
            <tr key={`${channel} ${method} ${currency}`} className="border-b border-rule">
              <th scope="row" className="py-1.5 text-left font-normal">
                {CHANNEL_WORDS[channel]} <span className="text-soft">{METHOD_WORDS[method]}</span>
              </th>
              <td className="py-1.5 text-right text-soft">{count === 1 ? '1 payment' : `${count} payments`}</td>
              <td className="private w-[120px] py-1.5 text-right font-serif text-[15.5px]">
                <Amount minor={jsonMinor(minor)} currency={currency} locale={locale} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </OverviewPart>
  );
}
