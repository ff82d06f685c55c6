import { desk } from '@/app/answer';
import { throwAway } from '@/flows/stock/change-stock';
import { ThrownInput } from '@/input/stock-input';

export const POST = desk(ThrownInput, (actor, { input: { requestKey, itemId, optionId, quantity, why } }) =>
  throwAway(actor, requestKey, { itemId, optionId: optionId ?? null }, quantity, why),
);
