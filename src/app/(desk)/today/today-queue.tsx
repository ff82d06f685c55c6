import { CircleHelp, CreditCard, Hourglass, MailX, MessageCircleQuestion, PenLine, Scale } from 'lucide-react';
import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { daysBetween } from '@/core/dates/calendar-date';
import { clockTime, monthText, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { sharePaid } from '@/core/invoice/state';
import { MESSAGE_KINDS } from '@/core/message/kinds';
import { jsonMinor } from '@/core/money/money';
import { cardText, REFUSAL_BRIEF } from '@/core/payment/outcome';
import { chargeNoteText } from '@/core/plan/charge-words';
import { stuckWords } from '@/core/today/stuck-words';
import type { QueueItem, TodayView } from '@/flows/day/today';
import { RemindAtOnce } from '@/ui/invoice/sheet-actions';
import { Figure } from '@/ui/kit/amount';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';
import { Rosette } from '@/ui/rosette';
import { TryAgain } from '@/ui/today-again';
import { CHANNEL_WORDS, subjectPath } from '../money/payments/json-payment';

type FailedMessage = Extract<QueueItem, { kind: 'undelivered' }>['message'];

type Row = { key: string; mark: ReactNode; title: ReactNode; about: string; sum: ReactNode; action: ReactNode };

const icon = { size: 22, strokeWidth: 1.4, 'aria-hidden': true } as const;

/** What a message that did not arrive was: `reminder, invoice 12`, `notice of the refused charge, Care club`. */
function subjectWords({ kind, invoiceNumber, planName, offerName }: FailedMessage): string {
  const { called } = MESSAGE_KINDS[kind];
  const about = invoiceNumber ? `invoice ${invoiceNumber}` : (planName ?? offerName);
  const words = `${called.charAt(0).toLowerCase()}${called.slice(1)}`;
  return about ? `${words}, ${about}` : words;
}

const readerOf = ({ kind, toName, customer }: FailedMessage): string =>
  MESSAGE_KINDS[kind].reader === 'business' ? toName : (customer ?? toName);

/** Where that stands. */
function subjectOf({ invoiceId, planId, customerId, offerId, placement }: FailedMessage): string {
  if (invoiceId) return `/ask/invoices/${invoiceId}`;
  if (planId) return `/ask/plans/${planId}`;
  if (offerId && placement) return `${PLACEMENT_WORDS[placement].path}/${offerId}`;
  return customerId ? `/records/customers/${customerId}` : '/settings/profile';
}

function rowOf(item: QueueItem, view: TodayView, first: boolean, mayAsk: boolean): Row {
  const { business, today } = view;
  const { locale, zone } = business;
  const strong = first ? 'btn-go' : '';
  const open = (href: string, words: string) => (
    <Link href={href as Route} className={`btn ${strong}`}>
      {words}
    </Link>
  );
  const figure = (minor: bigint, currency: string) => (
    <Figure minor={jsonMinor(minor)} currency={currency} locale={locale} />
  );
  switch (item.kind) {
    case 'refused': {
      const { payment } = item;
      const on = dateInZone(payment.startedAt, zone);
      return {
        key: payment.id,
        mark: <Rosette state="Refused" size={26} />,
        title: <>{payment.customer}: the card was refused</>,
        about: `${payment.cardScheme ?? 'Card'} ·${payment.cardLast4 ?? ''}: ${payment.reason ? REFUSAL_BRIEF[payment.reason] : 'refused'}, ${on === today ? clockTime(payment.startedAt, zone) : shortDate(on, locale, { weekday: true })}. Invoice ${payment.subject}.`,
        sum: figure(payment.amountMinor, payment.currency),
        action: open(`/ask/invoices/${payment.invoiceId}`, 'Look at it'),
      };
    }
    case 'charge': {
      const { charge } = item;
      const again = charge.actAt
        ? `Tried again ${shortDate(dateInZone(charge.actAt, zone), locale, { weekday: true })}.`
        : 'Not tried again by itself.';
      return {
        key: charge.id,
        mark: <Rosette state="Refused" size={26} />,
        title: <>{charge.customer}: a charge is refused</>,
        about: `${charge.plan}, ${shortDate(charge.chargedOn, locale)}: ${charge.lastReason ? REFUSAL_BRIEF[charge.lastReason] : chargeNoteText(charge.note)}. ${again}`,
        sum: figure(charge.amountMinor, charge.currency),
        action: open(`/ask/plans/${charge.planId}`, 'Look at it'),
      };
    }
    case 'missed': {
      const { missed } = item;
      return {
        key: `missed ${missed.planId}`,
        mark: <Hourglass {...icon} />,
        title: (
          <>
            {missed.customer}: {missed.count} charges were missed
          </>
        ),
        about: `${missed.name}, from ${shortDate(missed.from, locale, { weekday: true })} on. Nothing is charged until you decide.`,
        sum: figure(missed.minor, missed.currency),
        action: open(`/ask/plans/${missed.planId}`, 'Decide'),
      };
    }
    case 'parts': {
      const { charge, payBy, minor } = item;
      const late = daysBetween(payBy, today);
      return {
        key: charge.id,
        mark: <Rosette state="Overdue" size={26} />,
        title: (
          <>
            {charge.customer} is {late === 1 ? '1 day' : `${late} days`} late
          </>
        ),
        about: `${charge.plan}: was to be paid by ${shortDate(payBy, locale, { weekday: true })}.`,
        sum: figure(minor, charge.currency),
        action: open(`/ask/plans/${charge.planId}`, 'Look at it'),
      };
    }
    case 'card': {
      const { failing } = item;
      return {
        key: `card ${failing.planId}`,
        mark: <CreditCard {...icon} />,
        title: <>{failing.customer}: the next charge would fail</>,
        about: `${failing.plan} on ${shortDate(failing.on, locale, { weekday: true })}. ${failing.card ? `The best card, ${cardText(failing.card)}, is good until ${monthText(failing.card.expires, locale)}.` : 'There is no card on file.'}`,
        sum: null,
        action: open(`/ask/plans/${failing.planId}`, 'Look at it'),
      };
    }
    case 'checking': {
      const { payment } = item;
      return {
        key: payment.id,
        mark: <CircleHelp {...icon} />,
        title: <>{payment.customer}: no answer about a card yet</>,
        about: `${CHANNEL_WORDS[payment.channel]} ${payment.subject}. Dahlia keeps asking; the card is charged once at most.`,
        sum: figure(payment.amountMinor, payment.currency),
        action: open(subjectPath(payment), 'Look at it'),
      };
    }
    case 'batch': {
      const { day, differences } = item.batch;
      return {
        key: `batch ${day}`,
        mark: <Scale {...icon} />,
        title: <>The card processor’s book differs from yours</>,
        about: `The batch of ${shortDate(day, locale, { weekday: true })}: ${differences.length === 1 ? 'one payment' : `${differences.length} payments`}.`,
        sum: null,
        action: open(`/money/batches/${day}`, 'Look at it'),
      };
    }
    case 'question': {
      const { question } = item;
      return {
        key: question.id,
        mark: <MessageCircleQuestion {...icon} />,
        title: <>{question.customer} asks about an invoice</>,
        about: `“${question.text}” Invoice ${question.number}.`,
        sum: null,
        action: open(`/ask/invoices/${question.invoiceId}`, 'Answer'),
      };
    }
    case 'undelivered': {
      const { message } = item;
      return {
        key: message.id,
        mark: <MailX {...icon} />,
        title: (
          <>
            {message.way === 'mail' ? 'An e-mail' : 'A message'} to {readerOf(message)} was not taken
          </>
        ),
        about: `${message.toAddress}: ${subjectWords(message)}.`,
        sum: null,
        action: open(subjectOf(message), 'Look at it'),
      };
    }
    case 'late': {
      const { invoice } = item;
      const late = invoice.dueOn ? daysBetween(invoice.dueOn, today) : 0;
      return {
        key: invoice.id,
        mark: <Rosette state="Overdue" share={sharePaid(invoice)} size={26} />,
        title: (
          <Link href={`/ask/invoices/${invoice.id}` as Route} className="hover:underline">
            {invoice.customer} is {late === 1 ? '1 day' : `${late} days`} late
          </Link>
        ),
        about: `Invoice ${invoice.number}, ${invoice.seen ? 'seen' : 'not opened yet'}.`,
        sum: figure(invoice.dueMinor, invoice.currency),
        action: mayAsk ? (
          <RemindAtOnce invoiceId={invoice.id} to={invoice.customer ?? ''} strong={first} />
        ) : (
          open(`/ask/invoices/${invoice.id}`, 'Look at it')
        ),
      };
    }
    case 'stuck': {
      const { job } = item;
      const { what, advice } = stuckWords(job.task, job.payload.concern);
      const since = dateInZone(job.firstAt, zone);
      const tried = job.givenUp ? 'It is tried no more.' : 'It is tried further.';
      return {
        key: job.key,
        mark: <Hourglass {...icon} />,
        title: <>{what}</>,
        about: `Since ${shortDate(since, locale, { weekday: true })}, ${clockTime(job.firstAt, zone)}; ${job.failures} tries. ${tried} ${advice}`,
        sum: null,
        action: mayAsk ? <TryAgain jobKey={job.key} strong={first} /> : null,
      };
    }
    case 'draft': {
      const { invoice } = item;
      return {
        key: invoice.id,
        mark: <PenLine {...icon} />,
        title: <>An invoice for {invoice.customer ?? 'nobody yet'} is not sent</>,
        about: `Changed ${shortDate(dateInZone(invoice.changedAt, zone), locale, { weekday: true })}.`,
        sum: figure(invoice.totalMinor, invoice.currency),
        action: open(`/ask/compose/${invoice.id}`, 'Go on writing'),
      };
    }
  }
}

/** What needs a hand, worst first; one action a row, and the plum one is the first. */
export function TodayQueue({ view, mayAsk }: { view: TodayView; mayAsk: boolean }) {
  return (
    <ul className="px-[18px]">
      {view.queue.map((item, at) => {
        const row = rowOf(item, view, at === 0, mayAsk);
        return (
          <li
            key={row.key}
            className="grid min-h-[70px] grid-cols-[40px_minmax(0,1fr)] items-center gap-x-1 gap-y-2 border-b border-rule py-2 last:border-0 sm:grid-cols-[40px_minmax(0,1fr)_auto_150px]"
          >
            {row.mark}
            <div className="min-w-0 pr-2">
              <div className="name private">{row.title}</div>
              <div className="private small text-soft">{row.about}</div>
            </div>
            <div className="col-start-2 font-serif text-[16.5px] font-medium sm:col-start-auto sm:pr-5">{row.sum}</div>
            <div className="col-start-2 grid sm:col-start-auto">{row.action}</div>
          </li>
        );
      })}
    </ul>
  );
}
