import { desk } from '@/app/answer';
import { completeItem } from '@/app/complete-item';
import { ItemInput } from '@/app/input/item-input';
import { WordsInput } from '@/app/input/people-input';
import { findItems, keepItem } from '@/flows/records/items';

export const GET = desk(WordsInput, (actor, { input }) => findItems(actor, input.words));

export const POST = desk(ItemInput, (actor, { input }) => keepItem(actor, null, completeItem(input)));
