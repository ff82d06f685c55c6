import type { ReactNode } from 'react';
import type { PrintedInvoice } from '@/core/invoice/printed';
import { headFacts, howMuchText, sumRows, underLine } from '@/core/words/invoice-wording';
import { wordsOf } from '@/core/words/words';
import { ContactLine } from '../contact-line';
import { Amount, Figure } from '../kit/amount';
import { Leader } from '../kit/leader';

/** Something that was paid; minor units. */
export type PaidLine = { readonly id: string; readonly label: string; readonly minor: number };

/** The lines of an invoice with what they come to, as a table. */
export function InvoiceLines({ invoice }: { invoice: PrintedInvoice }) {
  const { currency, locale } = invoice;
  const words = wordsOf(locale);
  return (
    <table className="mt-3.5 w-full border-collapse">
      <thead>
        <tr className="border-b border-ink text-left text-soft">
          <th className="small pb-1 font-sans font-medium">{words.what}</th>
          <th className="small whitespace-nowrap pb-1 pl-3 text-right font-sans font-medium">{words.howMuch}</th>
          <th className="small pb-1 pl-3 text-right font-sans font-medium">{words.amount}</th>
        </tr>
      </thead>
      <tbody className="document">
        {invoice.lines.map((line, at) => {
          const under = underLine(line, invoice, words);
          return (
            <tr key={at} className="border-b border-rule align-baseline">
              <td className="py-1.5">
                <span className="break-words">{line.what}</span>
                {line.note ? (
                  <span className="small block whitespace-pre-line break-words font-sans">{line.note}</span>
                ) : null}
                {under ? <span className="small block font-sans text-soft">{under}</span> : null}
              </td>
              <td className="private whitespace-nowrap py-1.5 pl-3 text-right">{howMuchText(line, invoice, words)}</td>
              <td className="py-1.5 pl-3 text-right">
                <Figure minor={line.net} currency={currency} locale={locale} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What the lines come to: discount, charges, taxes, total, what was paid and credited, and what is due. */
export function InvoiceSums({
  invoice,
  paid,
  creditedMinor = 0,
  refundedMinor = 0,
  dueMinor,
}: {
  invoice: PrintedInvoice;
  paid: readonly PaidLine[];
  creditedMinor?: number;
  refundedMinor?: number;
  dueMinor: number;
}) {
  const { currency, locale } = invoice;
  const words = wordsOf(locale);
  const figure = (minor: number) => <Figure minor={minor} currency={currency} locale={locale} />;
  const moved = paid.length > 0 || creditedMinor > 0;
  return (
    <div className="document text-[15px]/6">
      {sumRows(invoice, words).map((row, at) => (
        <Leader key={at} label={row.label}>
          {figure(row.minor)}
        </Leader>
      ))}
      {invoice.exempt ? <p className="text-soft">{words.exempt(invoice.exempt)}</p> : null}
      {moved ? (
        <Leader label={words.total} className="font-semibold">
          {figure(invoice.total)}
        </Leader>
      ) : null}
      {creditedMinor > 0 ? <Leader label={words.credited}>{figure(-creditedMinor)}</Leader> : null}
      {paid.map((payment) => (
        <Leader key={payment.id} label={payment.label}>
          {figure(-payment.minor)}
        </Leader>
      ))}
      {refundedMinor > 0 ? <Leader label={words.refunded}>{figure(refundedMinor)}</Leader> : null}
      <Leader
        label={moved ? words.stillDue : words.total}
        className="rule-total mt-1 py-0.5 text-[17px]/7 font-semibold"
      >
        <Amount minor={moved ? dueMinor : invoice.total} currency={currency} locale={locale} />
      </Leader>
    </div>
  );
}

/** The letterhead, who it is for and which invoice it is. */
function InvoiceHead({ invoice, title }: { invoice: PrintedInvoice; title: ReactNode }) {
  const { seller, payer } = invoice;
  const words = wordsOf(invoice.locale);
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4 pb-3">
        <b className="font-serif text-[15.5px]/5 font-semibold">{seller.name}</b>
        <ContactLine parts={[...seller.address, seller.phone]} />
      </div>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <div>
          {title}
          {invoice.title ? <p className="font-serif text-[16px]/[22px] font-medium">{invoice.title}</p> : null}
          {headFacts(invoice, words).map((fact) => (
            <p key={fact} className="small text-soft">
              {fact}
            </p>
          ))}
        </div>
        <div className="min-w-0">
          <span className="label">{words.for}</span>
          <span className="private block break-words font-serif text-[15px]/5">{payer.name}</span>
          {[...payer.address, payer.email].filter(Boolean).map((line) => (
            <span key={line} className="private small block break-words text-soft">
              {line}
            </span>
          ))}
        </div>
      </div>
    </>
  );
}

/** The whole document, as the sheet shows it. */
export function InvoicePaper({
  invoice,
  paid,
  creditedMinor = 0,
  refundedMinor = 0,
  dueMinor,
}: {
  invoice: PrintedInvoice;
  paid: readonly PaidLine[];
  creditedMinor?: number;
  refundedMinor?: number;
  dueMinor: number;
}) {
  const words = wordsOf(invoice.locale);
  return (
    <>
      <InvoiceHead
        invoice={invoice}
        title={
          <h2 className="font-serif text-[22px]/7 font-medium">
            {words.invoice} {invoice.number}
          </h2>
        }
      />
      <InvoiceLines invoice={invoice} />
      <div className="ml-auto mt-2 w-full sm:w-[310px]">
        <InvoiceSums
          invoice={invoice}
          paid={paid}
          creditedMinor={creditedMinor}
          refundedMinor={refundedMinor}
          dueMinor={dueMinor}
        />
      </div>
      {invoice.note ? (
        <p className="mt-4 whitespace-pre-line font-serif text-[15px]/[21px] italic">{invoice.note}</p>
      ) : null}
    </>
  );
}
