'use client';
import { isAtProcessor, METHOD_WORDS, type PaymentMethod } from '@/core/payment/methods';
import type { RefundWish } from '@/core/refund/refund';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { NumberField } from '../kit/number-input';
import { Segment } from '../kit/segment';
import { SelectField } from '../kit/select';
import type { JsonPayment } from './json-payment';
import type { TypedRefund } from './wish';

const BY_HAND: readonly PaymentMethod[] = ['cash', 'transfer', 'cheque', 'other'];

/** What else than the lines is said of a refund: how much, how, why, and what else follows. */
export function RefundForm({
  payment,
  typed,
  byLines,
  hasGoods,
  set,
}: {
  payment: JsonPayment;
  typed: TypedRefund;
  /** Whether lines can be chosen. */
  byLines: boolean;
  hasGoods: boolean;
  set: (part: Partial<TypedRefund>) => void;
}) {
  const ways = [
    ...(byLines ? ([['lines', 'Lines']] as const) : []),
    ['sum', 'A sum'] as const,
    ['all', 'Everything'] as const,
    ...(payment.mayVoid ? ([['void', 'Void']] as const) : []),
  ] satisfies readonly (readonly [RefundWish['by'], string])[];
  // To the card, the account or the voucher it came from, or another way.
  const isBack = isAtProcessor(payment.method) || payment.method === 'voucher';
  const methods: readonly PaymentMethod[] = isBack ? [payment.method, ...BY_HAND] : BY_HAND;
  return (
    <div className="grid gap-3.5">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <Segment
          label="What goes back"
          value={typed.by}
          choices={ways}
          onChoose={(by) => set({ by, ...(by === 'void' ? { method: 'card' } : {}) })}
        />
        {typed.by === 'sum' ? (
          <div className="w-36">
            <NumberField
              label={`How much, ${payment.currency}`}
              value={typed.sum}
              onChange={(event) => set({ sum: event.target.value })}
            />
          </div>
        ) : null}
        {typed.by === 'void' ? null : (
          <div className="w-44">
            <SelectField
              label="How"
              value={typed.method}
              onChange={(event) => set({ method: event.target.value as PaymentMethod })}
            >
              {methods.map((method) => (
                <option key={method} value={method}>
                  {method === payment.method && isBack ? `to ${payment.how}` : METHOD_WORDS[method]}
                </option>
              ))}
            </SelectField>
          </div>
        )}
        {isAtProcessor(typed.method) || typed.method === 'cash' || typed.method === 'voucher' ? null : (
          <div className="w-40">
            <Field
              label="Reference"
              maxLength={60}
              value={typed.reference}
              onChange={(event) => set({ reference: event.target.value })}
            />
          </div>
        )}
      </div>
      {typed.method === 'transfer' ? (
        <div className="grid gap-3 sm:grid-cols-2">
          <Field
            label="To the account, IBAN"
            hint="With it, it goes into the next file of transfers for your bank."
            maxLength={42}
            value={typed.iban}
            onChange={(event) => set({ iban: event.target.value })}
          />
          <Field
            label="Holder"
            maxLength={140}
            value={typed.holder}
            onChange={(event) => set({ holder: event.target.value })}
          />
        </div>
      ) : null}
      <Field
        label={typed.tell ? 'Why, as the payer reads it' : 'Why'}
        maxLength={300}
        value={typed.reason}
        onChange={(event) => set({ reason: event.target.value })}
      />
      <div className="grid gap-1.5">
        {payment.isInvoice && typed.by !== 'lines' ? (
          <TickField
            label={`Invoice ${payment.invoiceNumber} is to be paid again: no credit note`}
            checked={typed.owedAgain}
            onChange={(event) => set({ owedAgain: event.target.checked })}
          />
        ) : null}
        {hasGoods ? (
          <TickField
            label="The goods go back to the stock"
            checked={typed.toStock}
            onChange={(event) => set({ toStock: event.target.checked })}
          />
        ) : null}
        {payment.plan?.runs ? (
          <TickField
            label={`End the plan “${payment.plan.name}” too`}
            hint="Unticked, it goes on and is charged on its next date."
            checked={typed.endPlan}
            onChange={(event) => set({ endPlan: event.target.checked })}
          />
        ) : null}
        {payment.email ? (
          <TickField
            label={
              <>
                Tell <span className="private">{payment.email}</span> by mail
              </>
            }
            checked={typed.tell}
            onChange={(event) => set({ tell: event.target.checked })}
          />
        ) : null}
      </div>
    </div>
  );
}
