import { FileText } from 'lucide-react';
import type { ReactNode } from 'react';
import { longDate } from '@/core/dates/date-text';
import { eInvoiceOf } from '@/core/einvoice/of-invoice';
import { eInvoiceProblems } from '@/core/einvoice/rules';
import type { PrintedInvoice } from '@/core/invoice/printed';
import { transferFacts } from '@/core/words/invoice-wording';
import { LANGUAGES, type Words, wordsOf } from '@/core/words/words';
import { ContactLine } from '../contact-line';
import { InvoiceLines, InvoiceSums, type PaidLine } from '../invoice/invoice-paper';
import { KeptLink } from '../keeping/kept-link';
import { Amount } from '../kit/amount';
import { AskQuestion, DecideFile } from './ask-back';
import type { PayOpen } from './card-pay';
import type { PayTerms } from './pay-choices';
import { PayPanel } from './pay-panel';
import { PayVoucher } from './pay-voucher';
import { payWords } from './pay-words';
import { ProofPay } from './proof-pay';

/** A payment that went through, with its receipt. Amounts in minor units. */
export type PayerReceipt = PaidLine & { readonly number: string; readonly href: string };

/**
 * A file on the page; `decided` says in words what was decided about it, `waits` whether it still holds the payment up, and for
 * whom in words; `mine` whether whoever reads can decide it.
 */
export type PayerFile = {
  readonly id: string;
  readonly name: string;
  readonly href: string;
  readonly approve: boolean;
  readonly decided: readonly string[];
  readonly waits: boolean;
  readonly waitsFor: string;
  readonly mine: boolean;
};

/** Somebody who is asked by name to approve: their name, and the sign of their link; both empty for anybody else. */
export type PayerApprover = { readonly name: string; readonly sign: string };
const NOBODY_NAMED: PayerApprover = { name: '', sign: '' };

type Pay =
  | {
      readonly kind: 'open';
      readonly open: PayOpen;
      readonly terms: PayTerms;
      readonly card: boolean;
      readonly byVoucher: boolean;
    }
  | { readonly kind: 'proof'; readonly fieldsUrl: string; readonly terms: PayTerms; readonly card: boolean }
  | { readonly kind: 'closed' };

function Settled({
  receipts,
  note,
  statement,
  words,
}: {
  receipts: readonly PayerReceipt[];
  note: string;
  statement: string;
  words: Words;
}) {
  return (
    <div>
      <p className="font-serif text-[18px]/6 font-semibold text-leaf">{note}</p>
      <Receipts receipts={receipts} words={words} />
      {receipts.length > 0 ? <p className="text-[15px]/[22px] text-soft">{words.receiptInMail}</p> : null}
      {statement ? <p className="text-[15px]/[22px] text-soft">{statement}</p> : null}
    </div>
  );
}

const Receipts = ({ receipts, words }: { receipts: readonly PayerReceipt[]; words: Words }) => (
  <ul className="mt-3">
    {receipts.map((receipt) => (
      <li
        key={receipt.number}
        className="flex items-center justify-between gap-3 border-t border-rule py-3 text-[15px]"
      >
        <span>{receipt.label}</span>
        <a className="link text-[15px]" href={receipt.href}>
          {words.receipt} {receipt.number}
        </a>
      </li>
    ))}
  </ul>
);

/** The files that go with the invoice, those to be approved with what decides them. */
function Files({
  files,
  token,
  approver,
  words,
}: {
  files: readonly PayerFile[];
  token: string | null;
  approver: PayerApprover;
  words: Words;
}) {
  if (files.length === 0) return null;
  return (
    <div className="mt-6">
      <h2 className="font-serif text-[17px] font-semibold">{words.files}</h2>
      {approver.name ? <p className="text-[15px]">{words.decideAs(approver.name)}</p> : null}
      <ul>
        {files.map((file) => (
          <li key={file.id} className="border-b border-rule py-2.5 text-[15px]">
            <a
              className="inline-flex items-center gap-2 underline underline-offset-3"
              href={file.href}
              target="_blank"
              rel="noreferrer"
            >
              <FileText size={16} strokeWidth={1.5} aria-hidden="true" />
              {file.name}
            </a>
            {file.decided.map((line) => (
              <p key={line} className="text-[14px] text-leaf">
                {line}
              </p>
            ))}
            {file.waits ? (
              <p className="text-[14px] font-medium text-ochre">{file.waitsFor || words.approveTitle}</p>
            ) : null}
            {file.mine && token ? (
              <DecideFile
                token={token}
                fileId={file.id}
                approver={approver.sign}
                words={{
                  approve: words.approve,
                  change: words.askChange,
                  comment: words.approveComment,
                  troubles: words.troubles,
                }}
              />
            ) : null}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** The invoice as its customer sees it: the document, and as a stub to be torn off what is to be paid. */
export function PayerInvoice({
  invoice,
  stage,
  balance,
  underWay = [],
  receipts,
  statement = '',
  files,
  token,
  approver = NOBODY_NAMED,
  logo,
  code,
  pay,
  parcels = null,
}: {
  /** In the reader's language: its locale may be another than the one it was sent in. */
  invoice: PrintedInvoice;
  stage: 'sent' | 'cancelled';
  balance: {
    readonly paidMinor: number;
    readonly creditedMinor: number;
    readonly refundedMinor: number;
    readonly dueMinor: number;
  };
  /** What is being paid just now, and not paid yet; in minor units. */
  underWay?: readonly {
    readonly amountMinor: number;
    readonly tipMinor: number;
    readonly approval: boolean;
    readonly expected: string;
  }[];
  receipts: readonly PayerReceipt[];
  /** What the statement of a card that paid will say; empty for nothing. */
  statement?: string;
  files: readonly PayerFile[];
  /** The link's own sign; null in the proof. */
  token: string | null;
  /** Who reads, where it is somebody who is asked by name to approve. */
  approver?: PayerApprover;
  logo: string | null;
  /** Where the code for a banking app is fetched; null for none. */
  code: string | null;
  pay: Pay;
  /** Where what it sells is; null where nothing of it is sent. */
  parcels?: ReactNode;
}) {
  const { seller, payer, locale, currency } = invoice;
  const { paidMinor, creditedMinor, refundedMinor, dueMinor } = balance;
  const words = wordsOf(locale);
  const settled = dueMinor === 0;
  const transfer = transferFacts(invoice, words);
  return (
    <div data-setting="day" className="min-h-dvh bg-desk text-ink" lang={locale.slice(0, 2)}>
      <main className="mx-auto max-w-[1080px] px-3 pb-10 pt-4 sm:px-5 sm:pt-8">
        <div className="grid rounded-paper border border-rule bg-sheet shadow-lift md:grid-cols-[minmax(0,640fr)_minmax(0,440fr)]">
          <section className="min-w-0 px-5 pb-8 pt-6 sm:px-11 sm:pt-7" aria-label={words.invoice}>
            <div className="flex flex-wrap items-baseline justify-between gap-x-4 border-b-[4px] border-double border-ink pb-2">
              {logo ? (
                // biome-ignore lint/performance/noImgElement: a small picture of the business's own
                <img src={logo} alt={seller.name} className="h-10 w-auto" />
              ) : (
                <b className="font-serif text-[17px]/6 font-semibold" style={{ color: invoice.accent }}>
                  {seller.name}
                </b>
              )}
              <ContactLine parts={[...seller.address, seller.phone]} />
            </div>
            <h1 className="mt-6 font-serif text-[30px]/[34px] font-medium sm:text-[35px]/[40px]">
              {words.invoice} {invoice.number}
            </h1>
            {invoice.title ? <p className="mt-1 font-serif text-[19px]/[26px] font-medium">{invoice.title}</p> : null}
            <p className="mt-1 font-serif text-[17px]/[25px]">
              {words.for} {payer.name}, {longDate(invoice.issuedOn, locale)}
              {invoice.reference ? `, ${words.yourReference(invoice.reference)}` : ''}
            </p>
            {invoice.serviceFrom ? (
              <p className="text-[15px] text-soft">
                {words.service(
                  invoice.serviceTo
                    ? words.until(longDate(day(invoice.serviceFrom), locale), longDate(day(invoice.serviceTo), locale))
                    : longDate(day(invoice.serviceFrom), locale),
                )}
              </p>
            ) : null}
            {invoice.changedOn ? (
              <p className="mt-2 bg-ochre-tint px-3 py-1.5 text-[15px]">
                {words.changed(longDate(invoice.changedOn, locale))}
              </p>
            ) : null}
            <InvoiceLines invoice={invoice} />
            <div className="ml-auto mt-3 w-full sm:w-[330px]">
              <InvoiceSums
                invoice={invoice}
                paid={receipts}
                creditedMinor={creditedMinor}
                refundedMinor={refundedMinor}
                dueMinor={dueMinor}
              />
            </div>
            {invoice.note ? (
              <p className="mt-6 whitespace-pre-line font-serif text-[16px]/[23px] italic">{invoice.note}</p>
            ) : null}
            {parcels}
            <Files files={files} token={token} approver={approver} words={words} />
            {token ? (
              <p className="mt-6 flex flex-wrap gap-x-6 gap-y-2">
                <a className="link text-[15px]/[22px]" href={`/i/${token}/invoice.pdf`}>
                  {words.downloadPdf}
                </a>
                {invoice.elsewhere || eInvoiceProblems(eInvoiceOf(invoice)).length > 0 ? null : (
                  <a className="link text-[15px]/[22px]" href={`/i/${token}/invoice.xml`}>
                    {words.downloadXml}
                  </a>
                )}
              </p>
            ) : null}
          </section>
          <section
            className="relative min-w-0 border-t border-dashed border-edge px-5 pb-8 pt-6 sm:px-10 sm:pt-7 md:border-l md:border-t-0"
            id="pay"
            aria-label={words.payment}
          >
            <span aria-hidden="true" className="absolute -left-[9px] -top-[9px] size-[18px] rounded-full bg-desk" />
            <span
              aria-hidden="true"
              className="absolute -right-[9px] -top-[9px] size-[18px] rounded-full bg-desk md:-left-[9px] md:-bottom-[9px] md:right-auto md:top-auto"
            />
            <h2 className="font-serif text-[22px]/7 font-semibold">
              {!settled || pay.kind === 'proof' ? words.whatYouPay : words.settled}
            </h2>
            {settled ? null : (
              <div className="rule-total mt-4 flex items-baseline justify-between py-2">
                <span className="font-serif text-[17px]">
                  {invoice.dueOnReceipt ? words.dueOnReceipt : words.due(longDate(invoice.dueOn, locale))}
                </span>
                <span className="font-serif text-[26px]/8 font-semibold">
                  <Amount minor={dueMinor} currency={currency} locale={locale} />
                </span>
              </div>
            )}
            {settled
              ? null
              : underWay.map((attempt, at) => (
                  <p key={at} className="mt-1.5 flex items-baseline justify-between gap-4 text-[15px] text-ochre">
                    <span>{attempt.expected || (attempt.approval ? words.underWayBank : words.underWay)}</span>
                    <span className="font-serif">
                      <Amount minor={attempt.amountMinor + attempt.tipMinor} currency={currency} locale={locale} />
                    </span>
                  </p>
                ))}
            <div className="mt-5">
              {pay.kind === 'open' && pay.card && token ? (
                <PayPanel
                  token={token}
                  open={pay.open}
                  terms={pay.terms}
                  byVoucher={pay.byVoucher}
                  words={payWords(words)}
                />
              ) : null}
              {pay.kind === 'open' && !pay.card && pay.byVoucher && token ? (
                <PayVoucher token={token} currency={currency} locale={locale} accepts={false} words={payWords(words)} />
              ) : null}
              {pay.kind === 'proof' && pay.card && !settled ? (
                <ProofPay fieldsUrl={pay.fieldsUrl} terms={pay.terms} words={payWords(words)} />
              ) : null}
              {stage === 'cancelled' ? <p className="text-[16px]/6">{words.cancelled}</p> : null}
              {stage === 'sent' && settled && pay.kind === 'closed' ? (
                <Settled
                  receipts={receipts}
                  note={paidMinor > 0 ? words.paidInFull : words.nothingToPay}
                  statement={statement}
                  words={words}
                />
              ) : null}
              {!settled && receipts.length > 0 ? <Receipts receipts={receipts} words={words} /> : null}
            </div>
            {!settled && transfer.length > 0 ? (
              <div className="mt-6 border-t border-rule pt-4">
                <h3 className="font-serif text-[17px] font-semibold">{words.transferTitle}</h3>
                {transfer.map((line) => (
                  <p key={line} className="break-words text-[15px]/[23px]">
                    {line}
                  </p>
                ))}
                {code ? (
                  <figure className="mt-3 flex items-center gap-4">
                    {/* biome-ignore lint/performance/noImgElement: made for this invoice and this sum */}
                    <img src={code} alt={words.payCode} width={132} height={132} className="border border-rule" />
                    <figcaption className="text-[14px]/5 text-soft">{words.payCode}</figcaption>
                  </figure>
                ) : null}
              </div>
            ) : null}
            <div className="mt-7 grid gap-4 border-t border-rule pt-5">
              {token ? (
                <AskQuestion
                  token={token}
                  words={{
                    title: words.question,
                    hint: words.questionHint,
                    send: words.ask,
                    sent: words.asked,
                    troubles: words.troubles,
                  }}
                />
              ) : null}
              <p className="text-center font-serif text-[15px]/[22px] italic">
                {seller.name}
                <br />
                {seller.phone ? <span className="whitespace-nowrap">{seller.phone} · </span> : null}
                <a className="underline decoration-edge underline-offset-3" href={`mailto:${seller.email}`}>
                  {seller.email}
                </a>
                {token ? <KeptLink token={token} words={words} /> : null}
              </p>
            </div>
          </section>
        </div>
        {token ? (
          <nav aria-label={words.language} className="mt-4 flex justify-center gap-5 text-[14px]">
            {Object.entries(LANGUAGES).map(([code, { name }]) => (
              <a
                key={code}
                href={`/i/${token}?lang=${code}${approver.sign ? `&approver=${approver.sign}` : ''}`}
                lang={code}
                hrefLang={code}
                aria-current={locale.startsWith(code) ? 'true' : undefined}
                className={`inline-grid min-h-11 items-center ${locale.startsWith(code) ? 'font-semibold' : 'underline underline-offset-3'}`}
              >
                {name}
              </a>
            ))}
          </nav>
        ) : null}
      </main>
    </div>
  );
}

const day = (date: string) => date as PrintedInvoice['issuedOn'];
