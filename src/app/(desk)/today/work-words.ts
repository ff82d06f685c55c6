import { daysBetween } from '@/core/dates/calendar-date';
import { clockTime, monthText, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_WORDS } from '@/core/dispute/dispute-words';
import { sharePaid } from '@/core/invoice/state';
import { MESSAGE_KINDS } from '@/core/message/kinds';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { contentWords } from '@/core/parcel/lot';
import { REASON_WORDS } from '@/core/parcel/returning';
import { LOOK_WORDS } from '@/core/parcel/shipment';
import { cardText, REFUSAL_BRIEF } from '@/core/payment/outcome';
import { returnWords } from '@/core/payout/return-reasons';
import { type Acting, mayDo } from '@/core/person/rights';
import { chargeNoteText } from '@/core/plan/charge-words';
import { NO_END } from '@/core/plan/shown-card';
import { stuckWords } from '@/core/today/stuck-words';
import type { WorkRow } from '@/core/today/work';
import type { QueueItem, TodayView } from '@/flows/day/today';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';
import { actOfAll, type WorkAct, type WorkMark, type WorkRowShown } from '@/ui/today/work-row';
import { CHANNEL_WORDS, subjectPath } from '../money/payments/json-payment';

type FailedMessage = Extract<QueueItem, { kind: 'undelivered' }>['message'];

/** How one thing reads: `about` as a sentence without its person, `act` as if its reader might do everything. */
type Told = {
  readonly key: string;
  readonly mark: WorkMark;
  readonly who: string;
  readonly about: string;
  readonly href: string;
  readonly sum: { readonly minor: number; readonly currency: string } | null;
  readonly act: WorkAct;
};

/** What a message that did not arrive was: `reminder, invoice 12`, `notice of the refused charge, Care club`. */
function subjectWords({ kind, invoiceNumber, planName, offerName }: FailedMessage): string {
  const { called } = MESSAGE_KINDS[kind];
  const about = invoiceNumber ? `invoice ${invoiceNumber}` : (planName ?? offerName);
  const words = `${called.charAt(0).toLowerCase()}${called.slice(1)}`;
  return about ? `${words}, ${about}` : words;
}

/** Where that stands. */
function subjectOf({ invoiceId, planId, customerId, offerId, placement }: FailedMessage): string {
  if (invoiceId) return `/ask/invoices/${invoiceId}`;
  if (planId) return `/ask/plans/${planId}`;
  if (offerId && placement) return `${PLACEMENT_WORDS[placement].path}/${offerId}`;
  return customerId ? `/records/customers/${customerId}` : '/settings/profile';
}

const daysLate = (days: number): string => (days === 1 ? '1 day late' : `${days} days late`);
const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;

function told(item: QueueItem, { business, today }: TodayView): Told {
  const { deskLocale: locale, zone } = business;
  const day = (at: Date): string => shortDate(dateInZone(at, zone), locale, { weekday: true });
  const sum = (minor: bigint, currency: string) => ({ minor: jsonMinor(minor), currency });
  const asked = 'asked' in item && item.asked ? ` Asked ${day(item.asked)}.` : '';
  const card = (customerId: string, email: string, href: string): WorkAct =>
    email ? { do: 'card', customerIds: [customerId], to: email } : { do: 'open', href, words: 'No e-mail address' };
  switch (item.kind) {
    case 'refused': {
      const { payment } = item;
      const href = `/ask/invoices/${payment.invoiceId}`;
      const on = dateInZone(payment.startedAt, zone);
      const when = on === today ? clockTime(payment.startedAt, zone) : shortDate(on, locale, { weekday: true });
      const why = payment.reason ? REFUSAL_BRIEF[payment.reason] : 'refused';
      return {
        key: payment.id,
        mark: { rosette: 'Refused', share: 0 },
        who: payment.customer,
        about: `Invoice ${payment.subject}: ${payment.method === 'debit' ? 'the bank debit was not paid' : 'the card was refused'}, ${when}. ${payment.cardScheme ?? 'Card'} ·${payment.cardLast4 ?? ''}, ${why}.${asked}`,
        href,
        sum: sum(payment.amountMinor, payment.currency),
        act: { do: 'remind', invoiceIds: [payment.invoiceId ?? ''], planIds: [], to: payment.customer },
      };
    }
    case 'came-back': {
      const { payment } = item;
      return {
        key: `back ${payment.id}`,
        mark: { rosette: 'Refused', share: 0 },
        who: payment.customer,
        about: `Invoice ${payment.subject}: the bank debit came back, ${day(payment.cameBackAt)}: ${REFUSAL_BRIEF[payment.why]}.${asked}`,
        href: `/ask/invoices/${payment.invoiceId}`,
        sum: sum(payment.amountMinor, payment.currency),
        act: { do: 'remind', invoiceIds: [payment.invoiceId ?? ''], planIds: [], to: payment.customer },
      };
    }
    case 'charge': {
      const { charge } = item;
      const href = `/ask/plans/${charge.planId}`;
      const why = charge.lastReason ? REFUSAL_BRIEF[charge.lastReason] : chargeNoteText(charge.note) || 'refused';
      const again = charge.actAt ? ` Tried again ${day(charge.actAt)}.` : ' Not tried again by itself.';
      return {
        key: charge.id,
        mark: { rosette: 'Refused', share: 0 },
        who: charge.customer,
        about: `${charge.plan}, ${shortDate(charge.chargedOn, locale)}: ${why}.${again}${asked}`,
        href,
        sum: sum(charge.amountMinor, charge.currency),
        act: item.needsCard ? card(charge.customerId, charge.email, href) : { do: 'charge', chargeIds: [charge.id] },
      };
    }
    case 'missed': {
      const { missed } = item;
      const count = missed.count === 1 ? 'one charge was' : `${missed.count} charges were`;
      return {
        key: `missed ${missed.planId}`,
        mark: { icon: 'hourglass' },
        who: missed.customer,
        about: `${missed.name}: ${count} missed, from ${shortDate(missed.from, locale, { weekday: true })} on. Nothing is charged until you decide.`,
        href: `/ask/plans/${missed.planId}`,
        sum: sum(missed.minor, missed.currency),
        act: {
          do: 'decide',
          planId: missed.planId,
          count: missed.count,
          sum: moneyText(money(missed.minor, missed.currency), locale),
        },
      };
    }
    case 'parts': {
      const { charge, payBy, minor } = item;
      return {
        key: charge.id,
        mark: { rosette: 'Overdue', share: 0 },
        who: charge.customer,
        about: `${charge.plan}: ${daysLate(daysBetween(payBy, today))}, was to be paid by ${shortDate(payBy, locale, { weekday: true })}.${asked}`,
        href: `/ask/plans/${charge.planId}`,
        sum: sum(minor, charge.currency),
        act: { do: 'remind', invoiceIds: [], planIds: [charge.planId], to: charge.customer },
      };
    }
    case 'card': {
      const { failing } = item;
      const href = `/ask/plans/${failing.planId}`;
      const best = failing.card
        ? failing.card.expires === NO_END
          ? `${cardText(failing.card)} cannot be charged any more.`
          : `${cardText(failing.card)} is good until ${monthText(failing.card.expires, locale)}.`
        : 'There is no card on file.';
      return {
        key: `card ${failing.planId}`,
        mark: { icon: 'card' },
        who: failing.customer,
        about: `${failing.plan} would fail on ${shortDate(failing.on, locale, { weekday: true })}. ${best}${asked}`,
        href,
        sum: null,
        act: card(failing.customerId, failing.email, href),
      };
    }
    case 'checking': {
      const { payment } = item;
      const href = subjectPath(payment);
      return {
        key: payment.id,
        mark: { icon: 'help' },
        who: payment.customer,
        about: `${CHANNEL_WORDS[payment.channel]} ${payment.subject}: no answer about the ${payment.method === 'debit' ? 'bank debit' : 'card'} yet. Dahlia keeps asking; it is charged once at most.`,
        href,
        sum: sum(payment.amountMinor, payment.currency),
        act: { do: 'open', href, words: 'Open' },
      };
    }
    case 'batch': {
      const { day: on, differences } = item.batch;
      const href = `/money/batches/${on}`;
      return {
        key: `batch ${on}`,
        mark: { icon: 'scale' },
        who: 'The processor’s book differs from yours',
        about: `Batch of ${shortDate(on, locale, { weekday: true })}: ${differences.length === 1 ? 'one payment' : `${differences.length} payments`}.`,
        href,
        sum: null,
        act: { do: 'open', href, words: 'Compare' },
      };
    }
    case 'carrier': {
      const { month, open } = item.differing;
      const href = `/deliver/carrier?month=${month}`;
      return {
        key: `carrier ${month}`,
        mark: { icon: 'scale' },
        who: `The carrier’s statement of ${monthText(month.slice(0, 7), locale)} differs`,
        about: open === 1 ? 'One entry is not as in your books.' : `${open} entries are not as in your books.`,
        href,
        sum: null,
        act: { do: 'open', href, words: 'Compare' },
      };
    }
    case 'return': {
      const { back } = item;
      return {
        key: `return ${back.id}`,
        mark: { icon: 'parcel' },
        who: back.name,
        about: `Asks to send back ${back.whats.join(', ')}: ${REASON_WORDS[back.reason].toLowerCase()}.`,
        href: '/deliver/returns',
        sum: null,
        act: { do: 'open', href: '/deliver/returns', words: 'Answer' },
      };
    }
    case 'stock': {
      const href = '/deliver/stock?low=yes';
      const { low } = item;
      const [first] = low;
      const named = low.slice(0, 3).map(({ name, option, available, order }) => {
        const called = option ? `${name}, ${option}` : name;
        return `${called}: ${available} free, order ${order}`;
      });
      return {
        key: 'stock',
        mark: { icon: 'shelf' },
        who: low.length === 1 ? `${first?.name} runs low` : `${low.length} things run low`,
        about: `${named.join(' · ')}${low.length > 3 ? ' · …' : ''}`,
        href,
        sum: null,
        act: { do: 'open', href, words: 'Look' },
      };
    }
    case 'question': {
      const { question } = item;
      return {
        key: question.id,
        mark: { icon: 'question' },
        who: question.customer,
        about: `Invoice ${question.number}: “${question.text}”`,
        href: `/ask/invoices/${question.invoiceId}`,
        sum: null,
        act: { do: 'answer', questionId: question.id, question: question.text },
      };
    }
    case 'undelivered': {
      const { message } = item;
      const toCustomer = MESSAGE_KINDS[message.kind].reader === 'customer';
      const what = subjectWords(message);
      return {
        key: message.id,
        mark: { icon: 'mail' },
        who: toCustomer ? (message.customer ?? message.toName) : message.toName,
        about: `${sentence(what)}: not taken for ${message.toAddress}.`,
        href: subjectOf(message),
        sum: null,
        act: {
          do: 'resend',
          messageId: message.id,
          what,
          address: message.toAddress,
          way: message.way,
          customer: toCustomer && message.aboutId !== null,
        },
      };
    }
    case 'late': {
      const { invoice } = item;
      const late = invoice.dueOn ? daysBetween(invoice.dueOn, today) : 0;
      return {
        key: invoice.id,
        mark: { rosette: 'Overdue', share: sharePaid(invoice) },
        who: invoice.customer ?? 'Nobody',
        about: `Invoice ${invoice.number}: ${daysLate(late)}, ${invoice.seen ? 'seen' : 'not opened yet'}.${asked}`,
        href: `/ask/invoices/${invoice.id}`,
        sum: sum(invoice.dueMinor, invoice.currency),
        act: { do: 'remind', invoiceIds: [invoice.id], planIds: [], to: invoice.customer ?? '' },
      };
    }
    case 'bank': {
      const { account, currency, count, since } = item.waiting;
      const href = `/money/bank?account=${account}&currency=${currency}`;
      return {
        key: `${account} ${currency}`,
        mark: { icon: 'scale' },
        who: count === 1 ? 'One line of the bank' : `${count} lines of the bank`,
        about: `Account ·${account.slice(-4)} ${currency}, since ${shortDate(since, locale, { weekday: true })}: nobody has said what for.`,
        href,
        sum: null,
        act: { do: 'open', href, words: 'Match' },
      };
    }
    case 'payout': {
      const { payout } = item;
      const href = `/money/payouts/${payout.id}`;
      const on = payout.settledOn ? ` ${shortDate(payout.settledOn, locale, { weekday: true })}` : '';
      return {
        key: payout.id,
        mark: { rosette: 'Refused', share: 0 },
        who: payout.partner || `Payout ${payout.number}`,
        about: `${payout.partner ? `Payout ${payout.number} came` : 'Came'} back${on}: ${returnWords(payout.reason)}.`,
        href,
        sum: sum(payout.amountMinor, payout.currency),
        act: { do: 'open', href, words: 'See to it' },
      };
    }
    case 'parcel': {
      const { parcel, look } = item;
      const href = `/deliver/shipments/${parcel.id}`;
      const promised = parcel.promisedOn
        ? `, promised for ${shortDate(parcel.promisedOn, locale, { weekday: true })}`
        : '';
      return {
        key: `parcel ${parcel.id}`,
        mark: { icon: 'parcel' },
        who: parcel.recipient.name,
        about: `${LOOK_WORDS[look]}${promised}: ${contentWords(parcel.lines)}.`,
        href,
        sum: null,
        act: { do: 'open', href, words: 'See to it' },
      };
    }
    case 'dispute': {
      const { dispute } = item;
      const href = `/money/disputes/${dispute.id}`;
      return {
        key: dispute.id,
        mark: { rosette: 'Disputed', share: 0 },
        who: dispute.customer,
        about: `${DISPUTE_WORDS[dispute.reason]}. The last day to answer is ${day(dispute.answerBy)}.`,
        href,
        sum: sum(dispute.amountMinor, dispute.currency),
        act: { do: 'open', href, words: 'Answer' },
      };
    }
    case 'stuck': {
      const { job } = item;
      const { what, advice } = stuckWords(job.task, job.payload.concern);
      const tried = job.givenUp ? 'It is tried no more.' : 'It is tried further.';
      return {
        key: job.key,
        mark: { icon: 'hourglass' },
        who: what,
        about: `Since ${day(job.firstAt)}, ${clockTime(job.firstAt, zone)}; ${job.failures} tries. ${tried} ${advice}`,
        href: '',
        sum: null,
        act: { do: 'try', jobKey: job.key },
      };
    }
    case 'draft': {
      const { invoice } = item;
      const href = `/ask/compose/${invoice.id}`;
      return {
        key: invoice.id,
        mark: { icon: 'pen' },
        who: invoice.customer ?? 'Nobody chosen yet',
        about: `Draft, changed ${day(invoice.changedAt)}.`,
        href,
        sum: sum(invoice.totalMinor, invoice.currency),
        act: { do: 'open', href, words: 'Go on writing' },
      };
    }
  }
}

/** The act as far as this person may do it; null where nothing is left but looking. */
function allowed(act: WorkAct, actor: Acting): WorkAct | null {
  const right = act.do === 'charge' || act.do === 'decide' ? 'take' : act.do === 'open' ? 'see' : 'ask';
  return mayDo(actor, right) ? act : null;
}

/** A row of Today as it is shown to this person. */
export function shownRow(row: WorkRow<QueueItem>, view: TodayView, actor: Acting): WorkRowShown {
  const first = told(row.first, view);
  const same = row.same.map((item) => told(item, view));
  const open: WorkAct | null = first.href ? { do: 'open', href: first.href, words: 'Open' } : null;
  const together = actOfAll([first, ...same].map(({ act }) => allowed(act, actor)));
  const own = allowed(first.act, actor);
  const sums = new Map<string, number>();
  for (const { sum } of [first, ...same]) if (sum) sums.set(sum.currency, (sums.get(sum.currency) ?? 0) + sum.minor);
  return {
    key: first.key,
    mark: first.mark,
    title: first.who,
    href: first.href || null,
    about: first.about,
    sums: [...sums].map(([currency, minor]) => ({ currency, minor })),
    // What mends itself is only looked at, but for what may be hurried.
    act: together ?? own ?? open,
    lines: [
      ...same.map((one) => ({
        key: one.key,
        words: one.about,
        href: one.href || null,
        act: together || !own ? null : allowed(one.act, actor),
      })),
      ...row.also.map(({ of, group }) => {
        const one = told(of, view);
        const act = group === 'waits' ? null : allowed(one.act, actor);
        return { key: one.key, words: one.about, href: one.href || null, act };
      }),
    ],
  };
}
