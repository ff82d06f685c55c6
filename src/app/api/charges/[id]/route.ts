import { desk } from '@/app/answer';
import type { Actor } from '@/flows/door/rights';
import { takeAsPaid } from '@/flows/payment/take-as-paid';
import { chargeAgain, moveCharge, priceOnce, skipCharge, waiveCharge } from '@/flows/plan/change-charge';
import { ChargeActionInput } from '@/input/plan-input';

const ACTIONS: Readonly<
  Record<ChargeActionInput['action'], (actor: Actor, id: string, input: ChargeActionInput) => Promise<void>>
> = {
  again: (actor, id, { cardId }) => chargeAgain(actor, id, cardId ?? null),
  paid: (actor, id, { by, reference }) => takeAsPaid(actor, id, by ?? 'other', reference ?? ''),
  waive: waiveCharge,
  move: (actor, id, { to, sure }) => moveCharge(actor, id, to ?? '', sure ?? false),
  price: (actor, id, { price }) => priceOnce(actor, id, price ?? ''),
  skip: skipCharge,
};

export const POST = desk(ChargeActionInput, (actor, { input, params }) =>
  ACTIONS[input.action](actor, params.id ?? '', input),
);
