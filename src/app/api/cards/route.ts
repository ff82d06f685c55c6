import { desk } from '@/app/answer';
import { addCardAtDesk, customerCards, orderAtDesk } from '@/flows/plan/cards-on-file';
import { AddCardInput, CardsOfInput, OrderCardsInput } from '@/input/plan-input';

export const GET = desk(CardsOfInput, (actor, { input }) => customerCards(actor, input.customerId));

export const POST = desk(AddCardInput, (actor, { input }) =>
  addCardAtDesk(actor, input.customerId, input.cardToken, input.key, {
    ...input.given,
    fileId: input.given.fileId ?? null,
  }),
);

export const PUT = desk(OrderCardsInput, (actor, { input }) => orderAtDesk(actor, input.customerId, input.ids));
