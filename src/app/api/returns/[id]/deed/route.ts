import { desk } from '@/app/answer';
import { closeReturn, exchangeReturn } from '@/flows/returning/returns';
import { ReturnDeedInput } from '@/input/return-input';

export const POST = desk(ReturnDeedInput, (actor, { input, params }) =>
  (input.deed === 'exchange' ? exchangeReturn : closeReturn)(actor, params.id ?? ''),
);
