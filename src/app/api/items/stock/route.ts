import { desk } from '@/app/answer';
import { IdsInput } from '@/app/input/item-input';
import { availableStock } from '@/flows/records/items';

export const GET = desk(IdsInput, (actor, { input }) => availableStock(actor, input.ids.split(',').filter(Boolean)));
