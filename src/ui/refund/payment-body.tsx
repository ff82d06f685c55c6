'use client';
import { useEffect, useState } from 'react';
import { decimalText } from '@/core/money/decimal';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { taxOf } from '@/core/refund/refund';
import { QUANTITY_SCALE } from '@/core/tally/tally';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { Becomes } from './becomes';
import { SumRow, TickRow } from './charge-rows';
import { creditingOf, type JsonPayment, refundPreview } from './json-payment';
import { RefundForm } from './refund-form';
import { Stepper } from './stepper';
import { whatItTakes } from './what-it-takes';
import { goodsBack, newRefund, type TypedRefund, wishOf } from './wish';

const REFUSED: Readonly<Record<string, string>> = {
  refund_too_large: 'That is more than is left of this payment.',
  bad_quantity: 'Write quantities as numbers, such as 2 or 1.5.',
  bad_input: 'Part of it was credited in another way: go on by the same way, or give everything back.',
};

/** What was paid for, what becomes of it, and giving it back in the lines themselves. */
export function PaymentBody({ payment, children }: { payment: JsonPayment; children?: React.ReactNode }) {
  const crediting = creditingOf(payment);
  const isWhole = payment.printed.total === payment.amount;
  const byLines = crediting.mayByLines && payment.due === 0 && crediting.left > 0n;
  const { busy, press } = usePress({ keyed: true });
  const [typed, setTyped] = useState<TypedRefund | null>(null);
  const [trouble, setTrouble] = useState('');
  const set = (part: Partial<TypedRefund>) => {
    setTrouble('');
    setTyped((before) => before && { ...before, ...part });
  };
  const figure = (minor: bigint | number) => (
    <Figure minor={minor} currency={payment.currency} locale={payment.locale} />
  );
  const wish = typed && wishOf(typed, payment);
  const preview = typed && wish ? refundPreview(payment, wish, typed.owedAgain) : null;
  const parts = preview?.parts ?? null;
  const choosing = typed?.by === 'lines';
  const goods = typed ? goodsBack({ ...typed, toStock: true }, payment) : [];
  const left = payment.amount + payment.tip - payment.refunded;
  const taxOnTop = payment.printed.pricesIncludeTax ? 0 : payment.printed.taxTotal;
  const back = (minor: bigint | undefined) => (minor ? figure(minor) : '–');

  const isOpen = typed !== null;
  // Esc leaves a refund that is being filled in, wherever the cursor stands; Enter never gives anything back.
  useEffect(() => {
    if (!isOpen || busy) return;
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) setTyped(null);
    };
    document.addEventListener('keydown', leave);
    return () => document.removeEventListener('keydown', leave);
  }, [isOpen, busy]);

  async function giveBack() {
    if (!typed || !wish) return;
    if (typed.reason.trim() === '') return setTrouble('Say why: it stands on the timeline, and the payer reads it.');
    const answer = await press(
      `/api/payments/${payment.id}/refund`,
      {
        wish: wish.by === 'sum' ? { by: 'sum', amountMinor: Number(wish.amountMinor) } : wish,
        method: typed.method,
        reference: typed.reference,
        owedAgain: typed.owedAgain,
        reason: typed.reason,
        aside: {
          toStock: goodsBack(typed, payment),
          endPlan: typed.endPlan,
          tell: typed.tell,
          ...(typed.method === 'transfer' && typed.iban.trim()
            ? { account: { holder: typed.holder, iban: typed.iban } }
            : {}),
        },
      },
      typed.by === 'void' ? 'The payment is voided' : 'The money is on its way back',
    );
    if (answer.ok) setTyped(null);
    else setTrouble(troubleOf(answer));
  }

  return (
    <div>
      {isWhole || choosing ? (
        <table className="document mb-3 w-full border-collapse" aria-label="What was paid for">
          <thead>
            <tr className="border-b border-ink font-sans text-[12.5px]/[18px] text-soft">
              <th className="py-1 text-left font-normal">What</th>
              <th className="py-1 text-right font-normal">Paid</th>
              {choosing ? <th className="w-[164px] py-1 pl-5 text-left font-medium text-plum">Refund</th> : null}
              {choosing ? <th className="w-[74px] py-1 text-right font-normal">Back</th> : null}
            </tr>
          </thead>
          <tbody>
            {payment.printed.lines.map((line, index) => {
              const most = crediting.quantitiesLeft[index] ?? 0n;
              const net = parts?.credited?.lines.find((one) => one.index === index)?.net;
              return (
                <tr key={index} className="border-b border-rule">
                  <td className="py-1.5 pr-2">
                    {line.what}
                    {line.quantity === '1' ? '' : `, ${line.quantity} × ${line.unitPrice}`}
                    {line.note ? <span className="small ml-1.5 font-sans text-soft">{line.note}</span> : null}
                  </td>
                  <td className="py-1.5 text-right">{figure(line.net)}</td>
                  {choosing ? (
                    <td className="whitespace-nowrap py-1 pl-5">
                      {most > 0n ? (
                        <>
                          <Stepper
                            label={line.what}
                            value={typed.quantities[index] ?? '0'}
                            most={most}
                            onChange={(value) => set({ quantities: { ...typed.quantities, [index]: value } })}
                          />
                          <span className="small ml-2 whitespace-nowrap font-sans text-soft">
                            of {decimalText(most, QUANTITY_SCALE)}
                          </span>
                        </>
                      ) : (
                        <span className="small font-sans text-soft">given back</span>
                      )}
                    </td>
                  ) : null}
                  {choosing ? <td className="py-1.5 text-right">{back(net)}</td> : null}
                </tr>
              );
            })}
            {payment.printed.discount > 0 ? (
              <SumRow
                words="Discount"
                paid={figure(-payment.printed.discount)}
                choosing={choosing}
                back={back(parts?.credited?.lines.reduce((sum, { apportioned }) => sum - apportioned, 0n))}
              />
            ) : null}
            {payment.printed.delivery ? (
              <TickRow
                words="Delivery"
                paid={figure(payment.printed.delivery.amount)}
                choosing={choosing}
                left={crediting.deliveryLeft}
                ticked={typed?.delivery ?? false}
                onTick={(delivery) => set({ delivery })}
              />
            ) : null}
            {payment.printed.fees.map((fee, at) => (
              <TickRow
                key={at}
                words={fee.name}
                paid={figure(fee.amount)}
                choosing={choosing}
                left={crediting.feesLeft[at] ?? false}
                ticked={typed?.fees.includes(at) ?? false}
                onTick={(ticked) =>
                  set({ fees: ticked ? [...(typed?.fees ?? []), at] : (typed?.fees ?? []).filter((one) => one !== at) })
                }
              />
            ))}
            {taxOnTop > 0 ? (
              <SumRow
                words="Tax"
                paid={figure(taxOnTop)}
                choosing={choosing}
                back={back(taxOf(parts?.credited ?? null))}
              />
            ) : null}
            {payment.tip > 0 ? (
              <TickRow
                words="Tip"
                paid={figure(payment.tip)}
                choosing={choosing}
                left={payment.tipRefunded < payment.tip}
                ticked={typed?.tip ?? false}
                onTick={(tip) => set({ tip })}
              />
            ) : null}
          </tbody>
        </table>
      ) : null}
      <Becomes payment={payment} parts={parts} figure={figure} />
      {typed ? (
        <div className="mt-5 border-t border-rule pt-4 font-sans text-[13.5px]/5">
          <RefundForm payment={payment} typed={typed} byLines={byLines} hasGoods={goods.length > 0} set={set} />
          {trouble ? <FieldError>{trouble}</FieldError> : null}
          <div className="mt-4 grid items-center gap-4 bg-wash px-4 py-3 sm:grid-cols-[minmax(0,1fr)_auto]">
            {parts ? (
              <p className="font-serif text-[15px]/[21px]" aria-live="polite">
                {whatItTakes(payment, typed, parts).join(' ')}
              </p>
            ) : (
              <p className="text-soft" aria-live="polite">
                {preview?.refused
                  ? (REFUSED[preview.refused] ?? 'That cannot be given back.')
                  : typed.by === 'sum'
                    ? `At most ${moneyText(money(BigInt(left), payment.currency), payment.locale)} can go back.`
                    : 'Nothing is chosen yet: say how many of each line go back.'}
              </p>
            )}
            <div className="flex items-center gap-4 sm:flex-col sm:gap-2">
              <Button
                look="sure"
                busy={busy}
                busyWords="Asking the processor"
                disabled={!parts}
                onClick={() => void giveBack()}
              >
                {[
                  typed.by === 'void' ? 'Void' : 'Refund',
                  parts ? moneyText(money(parts.totalMinor, payment.currency), payment.locale) : '',
                ]
                  .filter(Boolean)
                  .join(' ')}
              </Button>
              <Button look="link" disabled={busy} onClick={() => setTyped(null)}>
                Discard
              </Button>
            </div>
          </div>
        </div>
      ) : (
        <div className="mt-4 flex flex-wrap items-center gap-x-5 gap-y-2 font-sans text-[13.5px]/5">
          {payment.mayRefund && payment.state === 'paid' && left > 0 ? (
            <Button onClick={() => setTyped(newRefund(payment, byLines && isWhole))}>Refund</Button>
          ) : null}
          {children}
        </div>
      )}
    </div>
  );
}
