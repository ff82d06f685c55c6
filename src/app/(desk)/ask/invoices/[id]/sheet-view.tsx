import { FileText } from 'lucide-react';
import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { daysBetween } from '@/core/dates/calendar-date';
import { fromToday, longDate, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { eCreditOf } from '@/core/einvoice/of-credit';
import { eInvoiceOf } from '@/core/einvoice/of-invoice';
import { eInvoiceProblems } from '@/core/einvoice/rules';
import { isEInvoiceUsual } from '@/core/einvoice/where';
import { reminderWords } from '@/core/invoice/reminders';
import { invoiceState, sharePaid } from '@/core/invoice/state';
import { MESSAGE_KINDS } from '@/core/message/kinds';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { fileStanding } from '@/core/paper/approval';
import type { PaperFile } from '@/core/paper/paper';
import { isByHand, METHOD_WORDS } from '@/core/payment/methods';
import { notDelivered } from '@/core/timeline/not-delivered';
import { wordsOf } from '@/core/words/words';
import { type InvoiceSheet, printedOf } from '@/flows/invoice/invoice-sheet';
import { InvoicePaper } from '@/ui/invoice/invoice-paper';
import { AnswerAction, CopyLink, MoreActions, NextAction, type SheetActionsOf } from '@/ui/invoice/sheet-actions';
import { Amount, Figure } from '@/ui/kit/amount';
import { CreditLine } from '@/ui/payment/credit-line';
import { WayToBank } from '@/ui/payment/way-to-bank';
import { Rosette } from '@/ui/rosette';
import { Timeline } from '@/ui/timeline';
import { stepsOf } from '../../../money/payments/way-steps';

/** What the sheet's actions need of it. */
function actionsOf(sheet: InvoiceSheet): SheetActionsOf {
  const { invoice, business, customer, today, payments } = sheet;
  const printed = printedOf(sheet);
  const late = daysBetween(printed.dueOn, today);
  return {
    invoiceId: invoice.id,
    customerId: invoice.customerId ?? '',
    to: printed.payer.email,
    phone: customer?.phone ?? '',
    currency: invoice.currency,
    locale: business.deskLocale,
    today,
    dueMinor: jsonMinor(invoice.dueMinor),
    creditableMinor: invoice.stage === 'sent' ? jsonMinor(invoice.totalMinor - invoice.creditedMinor) : 0,
    mayCancel: invoice.stage === 'sent' && invoice.paidMinor - invoice.refundedMinor === 0n,
    byHand: payments
      .filter(({ method, refundedMinor }) => isByHand(method) && refundedMinor === 0n)
      .map((payment) => ({
        id: payment.id,
        what: [
          moneyText(money(payment.amountMinor, invoice.currency), business.deskLocale),
          METHOD_WORDS[payment.method].toLowerCase(),
        ].join(', '),
      })),
    reminderText: wordsOf(printed.locale).reminderText(late, longDate(printed.dueOn, printed.locale)),
  };
}

/** Who approved a file when, and for whom it still waits. */
function approvalWords({ approvals, business }: InvoiceSheet, file: PaperFile): string {
  const { said, waitsFor, isOpen } = fileStanding(
    file,
    approvals.map((one) => ({ ...one, at: one.at.toISOString() })),
  );
  const parts = said.map(({ decision, byName, at }) => {
    const on = shortDate(dateInZone(new Date(at), business.zone), business.deskLocale);
    return decision === 'approved' ? `approved by ${byName} on ${on}` : `${byName} asks for a change, ${on}`;
  });
  const waiting = waitsFor.length > 0 ? `waits for ${waitsFor.map(({ name }) => name).join(', ')}` : 'to be approved';
  return [...parts, ...(isOpen ? [waiting] : [])].join('; ');
}

/** The e-invoice; where it is usual and lacks something, what that is. */
function EInvoiceLink({ sheet }: { sheet: InvoiceSheet }) {
  const { invoice, business } = sheet;
  const printed = printedOf(sheet);
  const [problem] = printed.elsewhere ? [''] : eInvoiceProblems(eInvoiceOf(printed));
  if (problem === undefined)
    return (
      <a className="small hover:underline" href={`/files/xml/${invoice.id}`}>
        E-invoice.xml
      </a>
    );
  if (!problem || !isEInvoiceUsual(business.country, printed.payer)) return null;
  return <span className="small text-soft">No e-invoice: {problem}</span>;
}

/** What stands at the head: how much is still due, and since or until when. */
function AttemptStatus({ sheet }: { sheet: InvoiceSheet }) {
  const { invoice, business, today } = sheet;
  const { deskLocale: locale } = business;
  const { currency, dueOn } = invoice;
  const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={currency} locale={locale} />;
  if (invoice.stage === 'cancelled') {
    const on = invoice.cancelledAt ? dateInZone(invoice.cancelledAt, business.zone) : today;
    return <>Since {shortDate(on, locale, { weekday: true, year: true })}. Nothing is to be paid.</>;
  }
  const balance = invoice.totalMinor - invoice.creditedMinor - invoice.paidMinor + invoice.refundedMinor;
  if (balance < 0n) return <>The customer has {figure(-balance)} to their credit.</>;
  if (invoice.dueMinor === 0n && invoice.settledAt) {
    const on = dateInZone(invoice.settledAt, business.zone);
    return (
      <>
        Paid on {shortDate(on, locale, { weekday: true, year: true })}
        {dueOn && on <= dueOn ? ', in time.' : '.'}
      </>
    );
  }
  if (!dueOn) return null;
  const late = daysBetween(dueOn, today);
  return (
    <>
      {invoice.paidMinor > 0n ? (
        <>
          {figure(invoice.paidMinor)} of {figure(invoice.totalMinor)} is paid.{' '}
        </>
      ) : null}
      {late > 0 ? (
        <span className="text-brick">
          It was due {shortDate(dueOn, locale, { weekday: true })} and is {late === 1 ? '1 day' : `${late} days`} late.
        </span>
      ) : (
        <>
          It is due {shortDate(dueOn, locale, { weekday: true })}, {fromToday(dueOn, today)}.
        </>
      )}
    </>
  );
}

/** The next step, in a sentence, with its one action. */
function NextStep({ sheet, mayAsk }: { sheet: InvoiceSheet; mayAsk: boolean }) {
  const { invoice, pending, today, questions, approvals } = sheet;
  const lastRefused = sheet.timeline.find(({ event }) => ['refused', 'paid'].includes(event.kind));
  const refused = lastRefused?.event.kind === 'refused';
  const question = questions.find(({ answer }) => answer === null);
  if (invoice.stage === 'cancelled' || (invoice.dueMinor === 0n && !question)) return null;
  const late = invoice.dueOn !== null && invoice.dueOn < today;
  const change = approvals.find(({ decision }) => decision === 'change');
  const lost = notDelivered(sheet.timeline);
  const words = question
    ? `${question.byName} asks: “${question.text}”`
    : pending
      ? pending.approvalUrl
        ? `${pending.amountMinor < invoice.dueMinor ? `A part, ${moneyText(money(pending.amountMinor, invoice.currency), sheet.business.deskLocale)}, waits: the` : 'The'} customer’s bank asks for approval. You hear as soon as it is answered.`
        : 'A card payment has no answer yet. Dahlia is asking the card processor.'
      : change
        ? `${change.byName} asks for a change: “${change.comment}”`
        : lost
          ? `${MESSAGE_KINDS[lost.what].called} to ${lost.to} has not arrived: ${lost.trouble.replace(/\.$/, '')}. Send it another way, or mend the address.`
          : refused
            ? 'The last card was refused. The link in the e-mail still works for another card.'
            : late
              ? 'The due date has passed. A friendly second e-mail often helps.'
              : invoice.seen
                ? 'It has been seen. Now it is the customer’s turn.'
                : 'It is on its way. You see here when it is opened.';
  return (
    <div className="mx-[26px] flex flex-wrap items-center gap-3.5 bg-wash px-3.5 py-2.5">
      <p className="min-w-[220px] flex-1 font-serif text-[15.5px]/[21px]">{words}</p>
      {pending || !mayAsk ? null : question ? (
        <AnswerAction questionId={question.id} question={question.text} />
      ) : (
        <NextAction of={actionsOf(sheet)} remind={late && !refused} />
      )}
    </div>
  );
}

/** The reminders that are still to go out, and those that went. */
function Reminders({ sheet }: { sheet: InvoiceSheet }) {
  const waiting = sheet.reminders.filter(({ state }) => state === 'waiting');
  if (waiting.length === 0) return null;
  return (
    <p className="small mt-3 text-soft">
      Reminders go out by themselves on{' '}
      {waiting
        .map(
          ({ on, offset }) =>
            `${shortDate(on, sheet.business.deskLocale, { weekday: true })} (${reminderWords(offset)})`,
        )
        .join(', ')}
      .
    </p>
  );
}

/** A sent invoice: heading with rosette and amount due, next step, what the customer got, timeline. */
export function InvoiceSheetView({
  sheet,
  mayAsk,
  parcels,
}: {
  sheet: InvoiceSheet;
  mayAsk: boolean;
  /** The parcels that it sends. */
  parcels: ReactNode;
}) {
  const { invoice, business, payments } = sheet;
  const { deskLocale: locale, zone } = business;
  const state = invoiceState(invoice, sheet.today);
  const paid = invoice.dueMinor === 0n;
  const cancelled = invoice.stage === 'cancelled';
  const printed = printedOf(sheet);
  return (
    <div className="grid items-start gap-6 xl:grid-cols-[minmax(0,1fr)_208px]">
      <article className="sheet relative pb-4" aria-label={`Invoice ${invoice.number}`}>
        <Link href="/ask/invoices" className="link link-small absolute right-5 top-3 md:hidden">
          All invoices
        </Link>
        <div className="grid grid-cols-[66px_minmax(0,1fr)_auto] items-center px-[26px] pb-3 pt-4">
          <Rosette state={state} share={sharePaid(invoice)} size={48} />
          <div>
            <h1 className="font-serif text-[30px]/[34px] font-medium">
              <Amount
                minor={jsonMinor(paid || cancelled ? invoice.totalMinor : invoice.dueMinor)}
                currency={invoice.currency}
                locale={locale}
              />{' '}
              <span className="text-[17px] text-soft">{cancelled ? 'cancelled' : paid ? 'paid' : 'still due'}</span>
            </h1>
            <p>
              <b className="font-semibold">{state}.</b> <AttemptStatus sheet={sheet} />
            </p>
          </div>
          {mayAsk ? <MoreActions of={actionsOf(sheet)} open={invoice.stage === 'sent' && !paid} /> : <span />}
        </div>
        <NextStep sheet={sheet} mayAsk={mayAsk} />
        {invoice.dueMinor > 0n && sheet.creditElsewhereMinor > 0n ? (
          <CreditLine
            invoiceId={invoice.id}
            credit={moneyText(money(sheet.creditElsewhereMinor, invoice.currency), locale)}
            mayUse={mayAsk}
          />
        ) : null}
        <div className="px-[26px] pt-4 sm:pl-[92px] sm:pr-[30px]">
          <InvoicePaper
            invoice={printed}
            paid={payments.map((payment) => ({
              id: payment.id,
              label: wordsOf(printed.locale).paid(
                payment.settledAt ? shortDate(dateInZone(payment.settledAt, zone), printed.locale) : '',
                payment.cardScheme
                  ? `${payment.cardScheme} ·${payment.cardLast4}`
                  : wordsOf(printed.locale).methods[payment.method],
              ),
              minor: jsonMinor(payment.amountMinor),
            }))}
            creditedMinor={jsonMinor(invoice.creditedMinor)}
            refundedMinor={jsonMinor(invoice.refundedMinor)}
            dueMinor={jsonMinor(invoice.dueMinor)}
          />
          {invoice.paper.memo ? (
            <p className="mt-4 whitespace-pre-line bg-wash px-3 py-2">
              <span className="label">Private memo</span>
              {invoice.paper.memo}
            </p>
          ) : null}
          <Reminders sheet={sheet} />
          <div className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-rule pt-2.5">
            <a
              className="small inline-flex items-center gap-1.5 hover:underline"
              href={`/files/invoices/${invoice.id}`}
              target="_blank"
              rel="noreferrer"
            >
              <FileText size={15} strokeWidth={1.5} aria-hidden="true" /> Invoice {invoice.number}.pdf
            </a>
            {payments.map((payment) => (
              <Link
                key={`paid ${payment.id}`}
                className="small hover:underline"
                href={`/money/payments/${payment.id}` as Route}
              >
                Payment of {moneyText(money(payment.amountMinor + payment.tipMinor, invoice.currency), locale)}
              </Link>
            ))}
            {payments.map((payment) =>
              payment.receiptNumber ? (
                <a
                  key={payment.id}
                  className="small inline-flex items-center gap-1.5 hover:underline"
                  href={`/files/receipts/${invoice.id}/${payment.receiptNumber}`}
                  target="_blank"
                  rel="noreferrer"
                >
                  <FileText size={15} strokeWidth={1.5} aria-hidden="true" /> Receipt {payment.receiptNumber}.pdf
                </a>
              ) : null,
            )}
            {sheet.credits.map((credit) => (
              <a
                key={credit.id}
                className="small inline-flex items-center gap-1.5 hover:underline"
                href={`/files/credits/${credit.id}`}
                target="_blank"
                rel="noreferrer"
              >
                <FileText size={15} strokeWidth={1.5} aria-hidden="true" /> Credit note {credit.number}.pdf
              </a>
            ))}
            {sheet.credits
              .filter(({ printed: note }) => eInvoiceProblems(eCreditOf(note, printed)).length === 0)
              .map((credit) => (
                <a key={credit.id} className="small hover:underline" href={`/files/credits/${credit.id}/xml`}>
                  Credit note {credit.number}.xml
                </a>
              ))}
            {printed.files.map((file) => (
              <a
                key={file.id}
                className="small inline-flex items-center gap-1.5 hover:underline"
                href={`/files/own/${file.id}`}
                target="_blank"
                rel="noreferrer"
              >
                <FileText size={15} strokeWidth={1.5} aria-hidden="true" /> {file.name}
                {file.approve ? <span className="text-soft">{approvalWords(sheet, file)}</span> : null}
              </a>
            ))}
            <EInvoiceLink sheet={sheet} />
            <span className="flex-1" />
            <a className="link link-small" href={`/files/qr/${invoice.id}`} target="_blank" rel="noreferrer">
              QR
            </a>
            <CopyLink link={sheet.link} />
            <Link className="link link-small" href={`/proof/${invoice.id}/page` as Route} target="_blank">
              See as customer
            </Link>
          </div>
        </div>
        {parcels}
      </article>
      <div>
        {sheet.ways.map((way) => (
          <WayToBank
            key={way.row.id}
            steps={stepsOf(way, business)}
            {...(sheet.ways.length > 1
              ? {
                  title: `Way of ${moneyText(money(way.row.amountMinor + way.row.tipMinor, invoice.currency), locale)}`,
                }
              : {})}
          />
        ))}
        <Timeline
          lines={sheet.timeline}
          currency={invoice.currency}
          locale={locale}
          zone={zone}
          today={sheet.today}
          coming={invoice.dueMinor > 0n && invoice.dueOn && invoice.dueOn >= sheet.today ? invoice.dueOn : null}
        />
      </div>
    </div>
  );
}
