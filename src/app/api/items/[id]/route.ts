import { desk, Nothing } from '@/app/answer';
import { ItemInput } from '@/app/input/item-input';
import { wholeItem } from '@/app/whole-item';
import { keepItem, removeItem } from '@/flows/items';

export const PUT = desk(ItemInput, (actor, { input, params }) => keepItem(actor, params.id ?? '', wholeItem(input)));

export const DELETE = desk(Nothing, (actor, { params }) => removeItem(actor, params.id ?? ''));
