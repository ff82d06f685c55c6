import { desk } from '@/app/answer';
import { ChargeDeedInput } from '@/app/input/plan-input';
import type { Actor } from '@/flows/access';
import { chargeAgain } from '@/flows/plans/charge-plans';
import { moveCharge, skipCharge, takeAsPaid, waiveCharge } from '@/flows/plans/plan-deeds';

const DEEDS: Readonly<
  Record<ChargeDeedInput['deed'], (actor: Actor, id: string, input: ChargeDeedInput) => Promise<void>>
> = {
  again: (actor, id, { cardId }) => chargeAgain(actor, id, cardId ?? null),
  paid: (actor, id, { by, reference }) => takeAsPaid(actor, id, by ?? 'other', reference ?? ''),
  waive: waiveCharge,
  move: (actor, id, { to }) => moveCharge(actor, id, to ?? ''),
  skip: skipCharge,
};

export const POST = desk(ChargeDeedInput, (actor, { input, params }) =>
  DEEDS[input.deed](actor, params.id ?? '', input),
);
