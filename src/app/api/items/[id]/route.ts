import { desk, Nothing } from '@/app/answer';
import { completeItem } from '@/app/complete-item';
import { ItemInput } from '@/app/input/item-input';
import { keepItem, removeItem } from '@/flows/records/items';

export const PUT = desk(ItemInput, (actor, { input, params }) => keepItem(actor, params.id ?? '', completeItem(input)));

export const DELETE = desk(Nothing, (actor, { params }) => removeItem(actor, params.id ?? ''));
