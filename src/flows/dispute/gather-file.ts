import { type Business, sellerOf } from '@/core/business/business';
import { clockTime, longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { DISPUTE_WORDS } from '@/core/dispute/dispute-words';
import { type FilePart, includedParts, type PaymentFilePaper } from '@/core/dispute/payment-file';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { METHOD_WORDS } from '@/core/payment/methods';
import { eventWords, type LineSetting, type TimelineEvent, type TimelineLine } from '@/core/timeline/timeline';
import { latestApprovals } from '@/db/approvals';
import { type Authorisation, authorisationsOf } from '@/db/authorisations';
import { businessById } from '@/db/businesses';
import { chargesByIds } from '@/db/charges';
import { type Dispute, disputeOfPayment } from '@/db/disputes';
import { fileBytes } from '@/db/files';
import { earlierByCard, type Payment, type PaymentRow, paymentById, paymentRow } from '@/db/payments';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { type Receipt, receiptOfPayment } from '@/db/receipts';
import { orderTimeline, timelineOf } from '@/db/timeline';
import type { Bindable } from '@/documents/pdf/bound';
import type { Context } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { keptInvoicePdf, keptReceiptPdf } from '@/flows/file/kept-files';
import { payerOf, type RefundSubject, refundSubject } from '@/flows/payment/refund-subject';
import { authorisationPaper } from '@/flows/plan/authorisation-file';
import { type Delivered, deliveredOf, deliveredRows, handNames, handPapers } from './delivered';

const MOST_EARLIER = 20;

/** A paper of the file, with the part that it belongs to. */
export type GatheredPaper = Bindable & { readonly part: FilePart['key'] };

/** All that is known of a payment: to be set on paper, and the papers that go along, by the names that the parts give them. */
export type Gathered = {
  readonly paymentId: string;
  readonly paper: PaymentFilePaper;
  /** Every part, also those that hold nothing or are left out. */
  readonly parts: readonly FilePart[];
  readonly papers: readonly GatheredPaper[];
  readonly dispute: Dispute | null;
  readonly logoId: string | null;
};

type Facts = {
  readonly business: Business;
  readonly row: PaymentRow;
  readonly payment: Payment;
  readonly subject: RefundSubject;
  readonly timeline: readonly TimelineLine[];
  readonly receipt: Receipt | null;
  readonly authorisations: readonly Authorisation[];
  readonly approvals: Awaited<ReturnType<typeof latestApprovals>>;
  readonly earlier: readonly PaymentRow[];
  readonly dispute: Dispute | null;
  readonly delivered: Delivered;
};

async function factsOf(db: Db, paymentId: string): Promise<Facts> {
  const payment = found(await paymentById(db, paymentId));
  const { invoiceId, orderId, customerId, chargeId } = payment;
  const [charge] = chargeId ? await chargesByIds(db, [chargeId]) : [];
  const plan = charge ? await planById(db, charge.planId) : null;
  const all = customerId ? await authorisationsOf(db, customerId) : [];
  return {
    business: await businessById(db),
    row: found(await paymentRow(db, paymentId)),
    payment,
    subject: await refundSubject(db, payment),
    timeline: invoiceId ? await timelineOf(db, invoiceId) : await orderTimeline(db, found(orderId)),
    receipt: await receiptOfPayment(db, paymentId),
    // Of a plan's charge that plan's; of any other payment what was given for single purchases.
    authorisations: all.filter(
      ({ planId, givenAt }) => planId === (plan?.id ?? null) && givenAt <= (payment.settledAt ?? givenAt),
    ),
    approvals: invoiceId ? await latestApprovals(db, invoiceId) : [],
    earlier: payment.cardLast4 && customerId ? await earlierByCard(db, payment, MOST_EARLIER) : [],
    dispute: await disputeOfPayment(db, paymentId),
    delivered: await deliveredOf(db, invoiceId ?? found(orderId)),
  };
}

/** A moment on the business's clock; which that is stands once, above. */
const moment = (at: Date, { zone, paperLocale: locale }: Business): string =>
  `${longDate(dateInZone(at, zone), locale)}, ${clockTime(at, zone)}`;

/** How lines of a timeline are worded on paper. */
const lineSetting = ({ zone, paperLocale }: Business, currency: string): LineSetting => ({
  zone,
  locale: paperLocale,
  currency,
});

type Row = readonly [string, string];
const given = (rows: readonly (readonly [string, string | false | null | undefined])[]): Row[] =>
  rows.flatMap(([what, text]) => (text ? [[what, text] as const] : []));

function paymentPart({ business, row, timeline, subject }: Facts): FilePart {
  const sum = (minor: bigint) => moneyText(money(minor, row.currency), business.paperLocale);
  const asked = timeline.find(({ event }) => event.kind === 'approval-asked');
  return {
    key: 'payment',
    rows: given([
      ['Sum', sum(row.amountMinor + row.tipMinor)],
      ['Of that a tip', row.tipMinor > 0n && sum(row.tipMinor)],
      ['Paid', moment(row.settledAt ?? row.startedAt, business)],
      ['How', row.cardScheme ? `${row.cardScheme} card ending in ${row.cardLast4}` : METHOD_WORDS[row.method]],
      ['The processor’s number', row.saleId],
      [
        'The holder’s bank',
        asked && row.saleId && `asked for approval ${moment(asked.at, business)}, and it was given`,
      ],
      ['Paid by', [payerOf(subject).name, payerOf(subject).email].filter(Boolean).join(', ')],
    ]),
    texts: [],
    papers: [],
  };
}

function soldPart({ business, row, subject }: Facts): FilePart {
  const { printed, invoice, order } = subject;
  const seller = invoice?.printed?.seller ?? order?.printed.seller;
  const sum = (minor: number) => moneyText(money(BigInt(minor), row.currency), business.paperLocale);
  return {
    key: 'sold',
    rows: given([
      ['What we do', business.description],
      ['Under the name', seller?.legalName && seller.name],
      [invoice ? 'Invoice' : 'Order', invoice?.number ?? order?.reference],
      [
        invoice ? 'Issued' : 'Ordered',
        invoice?.issuedOn
          ? longDate(invoice.issuedOn, business.paperLocale)
          : order && moment(order.startedAt, business),
      ],
      ...printed.lines.map(
        ({ what, quantity, unitPrice, net }): Row => [
          what,
          quantity === '1' ? sum(net) : `${quantity} × ${unitPrice}: ${sum(net)}`,
        ],
      ),
      ['Discount', printed.discount > 0 && sum(-printed.discount)],
      ['Delivery', printed.delivery && sum(printed.delivery.amount)],
      ['Tax', !printed.pricesIncludeTax && printed.taxTotal > 0 && sum(printed.taxTotal)],
      ['Total', sum(printed.total)],
      ...(order?.printed.answers ?? []).map(({ label, text }): Row => [label, text]),
      ['Message', order?.printed.message],
    ]),
    texts: [],
    papers: invoice ? [{ name: `Invoice ${invoice.number}.pdf` }] : [],
  };
}

function termsPart({ business, subject: { invoice, order } }: Facts): FilePart {
  const terms = invoice?.printed?.terms ?? order?.printed.terms ?? null;
  const at = invoice ? invoice.termsAccepted && new Date(invoice.termsAccepted.at) : order?.startedAt;
  const isTheSame = !invoice?.termsAccepted || invoice.termsAccepted.versionId === terms?.versionId;
  if (!terms || !at || !isTheSame) return { key: 'terms', rows: [], texts: [], papers: [] };
  return {
    key: 'terms',
    rows: [
      ['Terms', `${terms.name}, version ${terms.version}`],
      ['Accepted', moment(at, business)],
    ],
    texts: [terms.text],
    papers: [],
  };
}

function approvalsPart({ business, subject: { invoice }, approvals }: Facts): FilePart {
  const files = new Map((invoice?.printed?.files ?? []).map((file) => [file.id, file.name]));
  const of = approvals.filter(({ fileId }) => files.has(fileId));
  return {
    key: 'approvals',
    rows: of.map(
      ({ fileId, decision, byName, at, comment, sha256 }): Row => [
        files.get(fileId) ?? '',
        [
          `${decision === 'approved' ? 'Approved' : 'Change asked for'} by ${byName}, ${moment(at, business)}`,
          comment,
          `SHA-256 ${sha256}`,
        ]
          .filter(Boolean)
          .join('\n'),
      ],
    ),
    texts: [],
    papers: [...new Set(of.map(({ fileId }) => fileId))].map((id) => ({ name: files.get(id) ?? '' })),
  };
}

function consentPart({ business, authorisations }: Facts): FilePart {
  return {
    key: 'consent',
    rows: authorisations.map(
      ({ givenAt, givenBy, how, givenFrom, withdrawnAt }): Row => [
        moment(givenAt, business),
        [
          eventWords({ kind: 'authorised', how, card: '' }, givenBy, lineSetting(business, business.currency)).rest,
          `by ${givenBy}`,
          givenFrom && `from ${givenFrom}`,
          withdrawnAt && `withdrawn ${moment(withdrawnAt, business)}`,
        ]
          .filter(Boolean)
          .join(', '),
      ],
    ),
    texts: authorisations.map(({ text }) => text),
    papers: authorisations.map((_, at) => ({ name: consentName(at) })),
  };
}

const consentName = (at: number): string => (at === 0 ? 'Consent.pdf' : `Consent ${at + 1}.pdf`);

const MESSAGES: ReadonlySet<TimelineEvent['kind']> = new Set([
  'sent',
  'sent-again',
  'mail-handed-over',
  'delivered',
  'bounced',
  'reminded',
  'question',
  'answer',
  'part-asked',
]);

/** Lines of the timeline as rows, oldest first. */
const told = ({ business, timeline, row }: Facts, kinds: ReadonlySet<TimelineEvent['kind']>): Row[] =>
  timeline
    .filter(({ event }) => kinds.has(event.kind))
    .toSorted((a, b) => a.at.getTime() - b.at.getTime())
    .map(({ at, event, byName }): Row => {
      const { lead, rest, note } = eventWords(event, byName, lineSetting(business, row.currency));
      return [moment(at, business), [`${lead} ${rest}`.trim(), note].filter(Boolean).join(': ')];
    });

const DOWNLOADS: ReadonlySet<TimelineEvent['kind']> = new Set(['downloaded']);

function deliveryPart(facts: Facts): FilePart {
  const { business, subject, delivered } = facts;
  const to = subject.order?.printed.deliveryTo ?? [];
  return {
    key: 'delivery',
    rows: [
      ...(to.length > 0 ? [['To be delivered to', to.join(', ')] as const] : []),
      ...deliveredRows(delivered, { zone: business.zone, locale: business.paperLocale }),
      ...told(facts, DOWNLOADS),
    ],
    texts: [],
    papers: handNames(delivered).map(({ name }) => ({ name })),
  };
}

function partsOf(facts: Facts): FilePart[] {
  const { business, row, receipt, earlier, subject, dispute } = facts;
  const sum = (minor: bigint) => moneyText(money(minor, row.currency), business.paperLocale);
  const plain = (key: FilePart['key'], rows: readonly Row[]): FilePart => ({ key, rows, texts: [], papers: [] });
  return [
    paymentPart(facts),
    soldPart(facts),
    {
      ...plain('receipt', receipt ? [['Number', receipt.number]] : []),
      papers: receipt ? [{ name: `Receipt ${receipt.number}.pdf` }] : [],
    },
    termsPart(facts),
    approvalsPart(facts),
    consentPart(facts),
    plain('messages', told(facts, MESSAGES)),
    plain('visits', told(facts, new Set(['seen'] as const))),
    deliveryPart(facts),
    plain(
      'earlier',
      earlier.map(
        (one): Row => [
          moment(one.settledAt ?? one.startedAt, business),
          [
            moneyText(money(one.amountMinor + one.tipMinor, one.currency), business.paperLocale),
            one.subject && `for ${one.invoiceId ? 'invoice ' : ''}${one.subject}`,
            'never disputed',
          ]
            .filter(Boolean)
            .join(', '),
        ],
      ),
    ),
    plain(
      'refunds',
      subject.refunds
        .filter(({ state }) => state === 'done')
        .map(
          (refund): Row => [
            moment(refund.settledAt ?? refund.startedAt, business),
            [sum(refund.amountMinor), refund.reason].filter(Boolean).join(': '),
          ],
        ),
    ),
    { ...plain('added', []), papers: (dispute?.files ?? []).map(({ name }) => ({ name })) },
  ];
}

/** The papers that the parts name, as files. */
async function papersOf(ctx: Context, facts: Facts): Promise<GatheredPaper[]> {
  const { subject, receipt, authorisations, approvals, dispute } = facts;
  const papers: GatheredPaper[] = [];
  if (subject.invoice?.printed) {
    const pdf = await keptInvoicePdf(ctx, subject.invoice);
    papers.push({ ...pdf, name: `Invoice ${subject.invoice.number}.pdf`, part: 'sold' });
  }
  if (receipt)
    papers.push({ ...(await keptReceiptPdf(ctx, receipt)), name: `Receipt ${receipt.number}.pdf`, part: 'receipt' });
  const approved = new Set(approvals.map(({ fileId }) => fileId));
  for (const { id, name } of subject.invoice?.printed?.files ?? []) {
    const file = approved.has(id) ? await ctx.read((db) => fileBytes(db, id)) : null;
    if (file) papers.push({ ...file, name, part: 'approvals' });
  }
  for (const [at, { id }] of authorisations.entries())
    papers.push({ ...(await authorisationPaper(ctx, id)), name: consentName(at), part: 'consent' });
  for (const hand of await handPapers(facts.delivered)) papers.push({ ...hand, part: 'delivery' });
  for (const { id, name } of dispute?.files ?? []) {
    const file = await ctx.read((db) => fileBytes(db, id));
    if (file) papers.push({ ...file, name, part: 'added' });
  }
  return papers;
}

/** What is known of a payment, part by part, without its papers. @throws Refusal `not-found` */
export const knownOf = async (db: Db, paymentId: string): Promise<FilePart[]> => partsOf(await factsOf(db, paymentId));

/** Gathers all that is known of a payment. @param leaveOut whether what a person left out of an answer stays out @throws Refusal `not-found` */
export async function gatherFile(ctx: Context, paymentId: string, leaveOut = true): Promise<Gathered> {
  const facts = await ctx.read((db) => factsOf(db, paymentId));
  const { business, row, subject, dispute } = facts;
  const parts = partsOf(facts);
  const leftOut = leaveOut ? (dispute?.leftOut ?? []) : [];
  const included = includedParts(parts, leftOut);
  const kept = new Set(included.map(({ key }) => key));
  const payer = payerOf(subject);
  const clock = `All times are those of ${business.zone.replaceAll('_', ' ')}`;
  const sum = moneyText(
    money(dispute?.amountMinor ?? row.amountMinor + row.tipMinor, row.currency),
    business.paperLocale,
  );
  return {
    paymentId,
    dispute,
    parts,
    logoId: business.logoId,
    papers: (await papersOf(ctx, facts)).filter(({ part }) => kept.has(part)),
    paper: {
      seller: sellerOf(business),
      accent: business.accent,
      locale: business.paperLocale,
      title: dispute ? 'Answer to a dispute' : 'File of a payment',
      facts: dispute
        ? [
            sum,
            `Disputed ${longDate(dateInZone(dispute.openedAt, business.zone), business.paperLocale)}`,
            DISPUTE_WORDS[dispute.reason],
            `The processor’s name for it: ${dispute.key}`,
            clock,
          ]
        : [sum, `Made ${longDate(dateInZone(ctx.now, business.zone), business.paperLocale)}`, clock],
      payer: [payer.name, payer.email, ...(row.cardScheme ? [`${row.cardScheme} ·${row.cardLast4}`] : [])].filter(
        Boolean,
      ),
      words: dispute?.words ?? '',
      parts: included,
      madeOn: dateInZone(ctx.now, business.zone),
    },
  };
}
