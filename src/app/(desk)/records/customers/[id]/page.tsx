import type { Metadata } from 'next';
import { jsonRow } from '@/app/(desk)/ask/invoices/json-row';
import { orGone } from '@/app/found';
import { pageActor } from '@/app/session';
import { longDate, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { PLAN_STATE_WORDS, RUNNING_STATES } from '@/core/plan/state';
import { AUTHORISED_WORDS } from '@/core/timeline/timeline';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { erasingView } from '@/flows/keeping/customer-data';
import { businessToday } from '@/flows/payment/payment-list';
import { customerPlans } from '@/flows/plan/own-page';
import { customerSheet } from '@/flows/records/customers';
import { giftYears } from '@/flows/records/gifts';
import { CustomerCards } from '@/ui/customer/customer-cards';
import { CustomerSheet } from '@/ui/customer/customer-sheet';
import { CustomerData } from '@/ui/keeping/customer-data';
import { Figure } from '@/ui/kit/amount';
import { ListRowLink } from '@/ui/list/list-row';

type Props = { params: Promise<{ id: string }> };

export const metadata: Metadata = { title: 'Customer' };

export default async function CustomerPage({ params }: Props) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orGone(id, customerSheet(actor, id), '/records/customers');
  const gifts = await giftYears(actor, id);
  const { business, today } = await businessToday(actor);
  const plans = await customerPlans(actor, id);
  const erasing = mayDo(actor, 'records') ? await erasingView(actor, id) : null;
  const { deskLocale: locale } = business;
  const day = (at: Date) => shortDate(dateInZone(at, business.zone), locale, { year: true });
  return (
    <CustomerSheet
      key={id}
      customer={sheet.customer}
      alike={sheet.alike}
      home={business.country}
      locale={locale}
      erased={sheet.erasedAt ? day(sheet.erasedAt) : ''}
      mayAsk={mayDo(actor, 'records') && !sheet.erasedAt}
    >
      {sheet.sums.map((sum) => (
        <p key={sum.currency} className="document flex flex-wrap gap-x-6">
          <span>
            {sum.invoices === 1 ? '1 invoice' : `${sum.invoices} invoices`} in {sum.currency}
          </span>
          <span>
            paid <Figure minor={jsonMinor(sum.paidMinor)} currency={sum.currency} locale={locale} />
          </span>
          <span className="font-semibold">
            still due <Figure minor={jsonMinor(sum.dueMinor)} currency={sum.currency} locale={locale} />
          </span>
        </p>
      ))}
      {gifts.map((gift) => (
        <p key={`${gift.year} ${gift.currency}`} className="document flex flex-wrap items-baseline gap-x-6">
          <span>
            {gift.count === 1 ? '1 donation' : `${gift.count} donations`} in {gift.year},{' '}
            <Figure minor={jsonMinor(gift.minor)} currency={gift.currency} locale={locale} /> {gift.currency}
          </span>
          <a
            className="link font-sans"
            href={`/files/gifts/${id}?year=${gift.year}&currency=${gift.currency}`}
            target="_blank"
            rel="noreferrer"
          >
            Statement for {gift.year}
          </a>
        </p>
      ))}
      <ul className="mt-2 border-t border-ink">
        {sheet.invoices.map((row) => (
          <ListRowLink
            key={row.id}
            row={{
              ...jsonRow(row, business, today),
              name: row.title || row.reference || (row.number ? `Invoice ${row.number}` : 'Draft'),
            }}
            open={false}
            locale={locale}
          />
        ))}
      </ul>
      {sheet.erasedAt ? null : (
        <CustomerCards
          customer={{ id, name: sheet.customer.name, email: sheet.customer.email, phone: sheet.customer.phone }}
          cards={plans.cards}
          plans={plans.plans.map((plan) => ({
            id: plan.id,
            name: plan.terms.name,
            state: PLAN_STATE_WORDS[plan.state],
            charges: plan.terms.pay === 'card' && RUNNING_STATES.some((state) => state === plan.state),
          }))}
          authorisations={plans.authorisations.map((one) => ({
            id: one.id,
            words: `${day(one.givenAt)}, ${AUTHORISED_WORDS[one.how]}`,
            withdrawn: one.withdrawnAt ? day(one.withdrawnAt) : '',
          }))}
          ownPage={plans.ownPage}
          fieldsUrl={cardFieldsUrl({ take: 'both' })}
          pricesIncludeTax={business.pricesIncludeTax}
          locale={locale}
          mayAsk={mayDo(actor, 'take')}
        />
      )}
      {erasing && !sheet.erasedAt ? (
        <CustomerData
          id={id}
          name={sheet.customer.name}
          open={erasing.open}
          papersUntil={erasing.papersUntil ? longDate(erasing.papersUntil, locale) : ''}
        />
      ) : null}
    </CustomerSheet>
  );
}
