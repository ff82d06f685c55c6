import type { ShownQuote } from '@/core/offer/shown';

/** What is paid, row by row, and the total. */
export function CheckoutSums({
  quote,
  waiting,
  called,
  words,
  trouble,
}: {
  quote: ShownQuote;
  /** Whether a newer sum is still to come. */
  waiting: boolean;
  /** What the total is called. */
  called: string;
  words: { readonly voucherTitle: string; readonly leftToPay: string };
  trouble: string | undefined;
}) {
  return (
    <div aria-live="polite" className={waiting ? 'opacity-70' : ''}>
      {quote.rows.map((row, at) => (
        <div key={at} className="leader py-0.5 font-serif text-[16px]/6">
          <span className="min-w-0 break-words">{row.label}</span>
          <span className="dots" aria-hidden="true" />
          <span className="whitespace-nowrap">{row.text}</span>
        </div>
      ))}
      <div className="rule-total mt-2 flex items-baseline justify-between py-2">
        <span className="font-serif text-[18px] font-semibold">{called}</span>
        <span className="font-serif text-[26px]/8 font-semibold" data-total={quote.chargedMinor}>
          {quote.total}
        </span>
      </div>
      {quote.voucher
        ? [
            [words.voucherTitle, `−${quote.voucher.paid}`],
            [words.leftToPay, quote.charged],
          ].map(([label, text]) => (
            <div key={label} className="leader py-0.5 font-serif text-[16px]/6">
              <span className="min-w-0 break-words">{label}</span>
              <span className="dots" aria-hidden="true" />
              <span className="whitespace-nowrap font-semibold">{text}</span>
            </div>
          ))
        : null}
      {quote.rateNote ? <p className="mt-1.5 text-[14px]/5 text-soft">{quote.rateNote}</p> : null}
      {trouble ? <p className="mt-1 text-[14px] font-medium text-brick">{trouble}</p> : null}
    </div>
  );
}
