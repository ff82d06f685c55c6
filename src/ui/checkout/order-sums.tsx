import type { PrintedOrder } from '@/core/offer/order';
import { sumRows } from '@/core/words/invoice-wording';
import { wordsOf } from '@/core/words/words';
import { Amount, Figure } from '../kit/amount';
import { Leader } from '../kit/leader';

/** What was ordered and what it came to. */
export function OrderSums({ order, card }: { order: PrintedOrder; card: string }) {
  const { currency, locale } = order;
  const words = wordsOf(locale);
  const figure = (minor: number) => <Figure minor={minor} currency={currency} locale={locale} />;
  return (
    <div className="font-serif text-[16px]/7">
      {order.lines.map((line, at) => (
        <Leader key={at} label={line.quantity === '1' ? line.what : `${line.quantity} × ${line.what}`}>
          {figure(line.net)}
        </Leader>
      ))}
      {sumRows(order, words)
        .slice(order.lines.length === 1 ? 1 : 0)
        .map((row, at) => (
          <Leader key={at} label={row.label}>
            {figure(row.minor)}
          </Leader>
        ))}
      {order.tip > 0 ? <Leader label={words.tip}>{figure(order.tip)}</Leader> : null}
      <Leader label={words.paidSum} className="rule-total mt-1 py-0.5 text-[18px]/8 font-semibold">
        <Amount minor={order.total + order.tip} currency={currency} locale={locale} />
      </Leader>
      {card ? <p className="mt-1 font-sans text-[14px] text-soft">{words.paidWith(card)}</p> : null}
      {[...order.deliveryTo.slice(0, 6)].map((line) => (
        <p key={line} className="font-sans text-[14px]/5 text-soft">
          {line}
        </p>
      ))}
      {order.answers.map(({ label, text }) => (
        <p key={label} className="font-sans text-[14px]/[21px]">
          <span className="text-soft">{label}:</span> {text}
        </p>
      ))}
    </div>
  );
}
