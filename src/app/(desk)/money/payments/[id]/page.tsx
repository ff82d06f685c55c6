import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { METHOD_WORDS } from '@/core/payment/methods';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { mayDo } from '@/core/person/rights';
import { paymentSheet } from '@/flows/payment/payment-sheet';
import { Amount } from '@/ui/kit/amount';
import { ReceiptAgain } from '@/ui/payment/receipt-again';
import { WayToBank } from '@/ui/payment/way-to-bank';
import { PaymentBody } from '@/ui/refund/payment-body';
import { Rosette } from '@/ui/rosette';
import { Timeline } from '@/ui/timeline';
import { SaleParcels } from '../../../deliver/sale-parcels';
import { CHANNEL_WORDS, paymentState, subjectPath } from '../json-payment';
import { jsonSheet } from '../json-sheet';
import { OrderDetails } from '../order-details';
import { stepsOf } from '../way-steps';

export const metadata: Metadata = { title: 'Payment' };

export default async function PaymentPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const sheet = await orNotFound(id, paymentSheet(actor, id));
  const { row, subject, business, today, timeline, ownReference } = sheet;
  const { deskLocale: locale, zone } = business;
  const at = row.settledAt ?? row.startedAt;
  const state = paymentState(row);
  const why = row.reason ? `: ${REFUSAL_BRIEF[row.reason]}` : '';
  const how = row.cardScheme
    ? ` ${METHOD_WORDS[row.method]}, ${row.cardScheme} ·${row.cardLast4}`
    : row.method === 'card'
      ? ''
      : ` ${[METHOD_WORDS[row.method], row.reference].filter(Boolean).join(', ')}`;
  const mayAsk = mayDo(actor, 'ask');
  const receipt = row.receiptNumber
    ? row.invoiceId
      ? `/files/receipts/${row.invoiceId}/${row.receiptNumber}`
      : `/files/order-receipts/${row.id}`
    : null;
  return (
    <div className="grid items-start gap-6 xl:grid-cols-[minmax(0,600px)_208px]">
      <article className="sheet relative max-w-[600px] pb-6" aria-label={`Payment by ${row.customer}`}>
        <Link href="/money/payments" className="link link-small mx-[26px] mt-3 inline-block md:hidden">
          All payments
        </Link>
        <div className="grid grid-cols-[66px_minmax(0,1fr)] items-center px-[26px] pb-3 pt-4">
          <Rosette state={state} share={row.state === 'paid' ? 1 : 0} size={48} />
          <div>
            <h1 className="font-serif text-[30px]/[34px] font-medium">
              <Amount minor={jsonMinor(row.amountMinor + row.tipMinor)} currency={row.currency} locale={locale} />{' '}
              <span className="private text-[17px] text-soft">from {row.customer}</span>
            </h1>
            <p>
              <b
                className={`font-semibold ${row.state === 'refused' || row.dispute === 'open' || row.dispute === 'lost' ? 'text-brick' : ''}`}
              >
                {state}
              </b>
              {why}, {shortDate(dateInZone(at, zone), locale, { weekday: true, year: true })} at {clockTime(at, zone)}
              {how}, for{' '}
              <Link className="link" href={subjectPath(row) as Route}>
                {CHANNEL_WORDS[row.invoiceId ? 'invoice' : row.channel]} {row.subject}
              </Link>
              {row.channel === 'plan' && sheet.plan ? (
                <>
                  , charged by{' '}
                  <Link className="link" href={`/ask/plans/${sheet.plan.id}` as Route}>
                    {sheet.plan.name}
                  </Link>
                </>
              ) : null}
              .
              {sheet.together.map((other) => (
                <span key={other.id}>
                  {' '}
                  <Link className="link" href={`/money/payments/${other.id}` as Route}>
                    <Amount
                      minor={jsonMinor(other.amountMinor + other.tipMinor)}
                      currency={other.currency}
                      locale={locale}
                    />
                  </Link>{' '}
                  of the order was paid {METHOD_WORDS[other.method]}.
                </span>
              ))}
              {row.voucherId ? (
                <>
                  {' '}
                  <Link className="link" href={`/records/vouchers/${row.voucherId}` as Route}>
                    The voucher
                  </Link>
                </>
              ) : null}
            </p>
          </div>
        </div>
        <div className="px-[26px] pt-2">
          <PaymentBody key={`${row.refundedMinor} ${row.state}`} payment={jsonSheet(sheet, actor)}>
            {receipt ? (
              <a className="link" href={receipt} target="_blank" rel="noreferrer">
                Receipt {row.receiptNumber}
              </a>
            ) : null}
            {row.state === 'paid' ? (
              <a className="link" href={`/files/payment-file/${row.id}`}>
                All its papers
              </a>
            ) : null}
            {mayAsk && row.receiptNumber ? (
              <ReceiptAgain
                paymentId={row.id}
                email={subject.invoice?.printed?.payer.email ?? subject.order?.printed.payer.email ?? ''}
                mailed={!subject.order || subject.order.offer.receipt === 'auto'}
                ownReference={ownReference}
              />
            ) : null}
          </PaymentBody>
          {subject.order ? <OrderDetails reference={row.orderReference ?? ''} order={subject.order.printed} /> : null}
        </div>
        {subject.order ? <SaleParcels actor={actor} saleId={subject.order.id} locale={locale} /> : null}
      </article>
      <div>
        <WayToBank steps={stepsOf(sheet, business)} />
        <Timeline lines={timeline} currency={row.currency} locale={locale} zone={zone} today={today} />
      </div>
    </div>
  );
}
