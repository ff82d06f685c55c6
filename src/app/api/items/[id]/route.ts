import { desk, Nothing } from '@/app/answer';
import { completeItem } from '@/app/complete-item';
import { itemUses, keepItem, removeItem, restoreItem } from '@/flows/records/items';
import { ItemInput } from '@/input/item-input';

export const PUT = desk(ItemInput, (actor, { input, params }) => keepItem(actor, params.id ?? '', completeItem(input)));

export const DELETE = desk(Nothing, (actor, { params }) => removeItem(actor, params.id ?? ''));

/** What hangs on it. */
export const GET = desk(Nothing, (actor, { params }) => itemUses(actor, params.id ?? ''));

/** Back on the list. */
export const POST = desk(Nothing, (actor, { params }) => restoreItem(actor, params.id ?? ''));
