import { desk } from '@/app/answer';
import { availableStock } from '@/flows/records/items';
import { IdsInput } from '@/input/item-input';

export const GET = desk(IdsInput, (actor, { input }) => availableStock(actor, input.ids.split(',').filter(Boolean)));
