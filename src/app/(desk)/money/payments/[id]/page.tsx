import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { packingOf } from '@/core/offer/packing';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { mayDo } from '@/flows/door/rights';
import { businessToday, onePayment, orderOfPayment, partsOf } from '@/flows/payment/payment-list';
import { Amount, Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { OrderPaymentActions } from '@/ui/payment/order-payment-actions';
import { Rosette } from '@/ui/rosette';
import { Timeline } from '@/ui/timeline';
import { CHANNEL_WORDS, METHOD_WORDS, paymentState, subjectPath } from '../json-payment';

export const metadata: Metadata = { title: 'Payment' };

export default async function PaymentPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const payment = await orNotFound(id, onePayment(actor, id));
  const of = await orderOfPayment(actor, payment);
  const parts = await partsOf(actor, payment);
  const { business, today } = await businessToday(actor);
  const { locale, zone } = business;
  const at = payment.settledAt ?? payment.startedAt;
  const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={payment.currency} locale={locale} />;
  const state = paymentState(payment);
  const why = payment.reason ? `: ${REFUSAL_BRIEF[payment.reason]}` : '';
  return (
    <div className="grid items-start gap-6 xl:grid-cols-[minmax(0,600px)_208px]">
      <article className="sheet max-w-[600px] pb-6" aria-label={`Payment by ${payment.customer}`}>
        <div className="grid grid-cols-[66px_minmax(0,1fr)] items-center px-[26px] pb-3 pt-4">
          <Rosette state={state} share={payment.state === 'paid' ? 1 : 0} size={48} />
          <div>
            <h1 className="font-serif text-[30px]/[34px] font-medium">
              <Amount minor={jsonMinor(payment.amountMinor)} currency={payment.currency} locale={locale} />{' '}
              <span className="private text-[17px] text-soft">from {payment.customer}</span>
            </h1>
            <p>
              <b className={`font-semibold ${payment.state === 'refused' ? 'text-brick' : ''}`}>{state}</b>
              {why}, {shortDate(dateInZone(at, zone), locale, { weekday: true, year: true })} at {clockTime(at, zone)}
            </p>
          </div>
        </div>
        <div className="document px-[26px] pt-2 leading-7 sm:pl-[92px] sm:pr-[30px]">
          <Leader label="Channel">
            <Link className="link font-serif text-[15px]" href={subjectPath(payment) as Route}>
              {CHANNEL_WORDS[payment.channel]} {payment.subject}
            </Link>
          </Leader>
          {payment.cardScheme ? (
            <Leader label="Card">
              {payment.cardScheme} ·{payment.cardLast4}
            </Leader>
          ) : payment.method === 'card' ? null : (
            <Leader label="Received">
              {[METHOD_WORDS[payment.method], payment.reference].filter(Boolean).join(', ')}
            </Leader>
          )}
          {payment.saleId && (payment.state === 'paid' || payment.state === 'voided') ? (
            <Leader label="Daily closing">
              <Link className="link font-serif text-[15px]" href={`/money/batches/${dateInZone(at, zone)}` as Route}>
                {shortDate(dateInZone(at, zone), locale, { weekday: true })}
              </Link>
            </Leader>
          ) : null}
          {payment.receiptNumber ? (
            <Leader label="Receipt">
              <a
                className="link font-serif text-[15px]"
                href={
                  payment.invoiceId
                    ? `/files/receipts/${payment.invoiceId}/${payment.receiptNumber}`
                    : `/files/order-receipts/${payment.id}`
                }
                target="_blank"
                rel="noreferrer"
              >
                {payment.receiptNumber}.pdf
              </a>
            </Leader>
          ) : null}
          {payment.state === 'paid' ? (
            <div className="mt-4">
              <Leader label="Paid">{figure(payment.amountMinor)}</Leader>
              {payment.tipMinor > 0n ? <Leader label="Tip">{figure(payment.tipMinor)}</Leader> : null}
              {payment.method === 'card' ? <Leader label="Processing fee">{figure(-payment.feeMinor)}</Leader> : null}
              {of?.refunds.map((refund) => (
                <Leader
                  key={refund.id}
                  label={`${refund.kind === 'void' ? 'Voided' : 'Refunded'}${refund.state === 'pending' ? ', being asked for' : ''}: ${refund.reason}`}
                >
                  {figure(-refund.amountMinor)}
                </Leader>
              ))}
              {parts.partners.map(({ position, name, minor }) => (
                <Leader key={position} label={`${name}’s part`}>
                  {figure(-minor)}
                </Leader>
              ))}
              <Leader
                label={payment.method === 'card' ? 'On its way to you' : 'With you'}
                className="rule-total mt-1 py-0.5 text-[17px]/7 font-semibold"
              >
                {figure(parts.ownMinor)}
              </Leader>
            </div>
          ) : null}
          {of ? (
            <div className="font-sans text-[13.5px]/5">
              <div className="mt-4 border-t border-rule pt-3">
                <p>
                  <span className="text-soft">Order</span> {payment.orderReference}
                </p>
                {of.order.printed.lines.map((line, at) => (
                  <p key={at}>
                    {line.quantity} × {[line.what, line.note].filter(Boolean).join(', ')}
                  </p>
                ))}
                {packingOf(of.order.printed).map(({ label, text, fileId }, line) => (
                  <p key={`${line} ${label}`} className="whitespace-pre-line">
                    <span className="text-soft">{label}:</span>{' '}
                    {fileId ? (
                      <a className="link" href={`/files/own/${fileId}`} target="_blank" rel="noreferrer">
                        {text}
                      </a>
                    ) : (
                      <span className="private">{text}</span>
                    )}
                  </p>
                ))}
                {Object.entries(of.order.printed.passed).map(([name, value]) => (
                  <p key={name}>
                    <span className="text-soft">{name}:</span> {value}
                  </p>
                ))}
              </div>
              {mayDo(actor.role, 'ask') && payment.receiptNumber ? (
                <OrderPaymentActions
                  paymentId={payment.id}
                  leftMinor={
                    payment.state === 'paid'
                      ? jsonMinor(payment.amountMinor + payment.tipMinor - payment.refundedMinor)
                      : 0
                  }
                  mayGiveBack={mayDo(actor.role, 'give-back')}
                  untouched={payment.refundedMinor === 0n}
                  currency={payment.currency}
                  locale={locale}
                  email={of.order.printed.payer.email}
                  mailed={of.order.offer.receipt === 'auto'}
                  ownReference={of.ownReference}
                />
              ) : null}
            </div>
          ) : null}
        </div>
      </article>
      {of ? (
        <Timeline lines={of.timeline} currency={payment.currency} locale={locale} zone={zone} today={today} />
      ) : null}
    </div>
  );
}
