import { desk, Nothing } from '@/app/answer';
import { completeItem } from '@/app/complete-item';
import { keepItem, removeItem } from '@/flows/records/items';
import { ItemInput } from '@/input/item-input';

export const PUT = desk(ItemInput, (actor, { input, params }) => keepItem(actor, params.id ?? '', completeItem(input)));

export const DELETE = desk(Nothing, (actor, { params }) => removeItem(actor, params.id ?? ''));
