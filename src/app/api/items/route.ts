import { desk } from '@/app/answer';
import { completeItem } from '@/app/complete-item';
import { findItems, keepItem } from '@/flows/records/items';
import { ItemInput } from '@/input/item-input';
import { WordsInput } from '@/input/people-input';

export const GET = desk(WordsInput, (actor, { input }) => findItems(actor, input.words));

export const POST = desk(ItemInput, (actor, { input }) => keepItem(actor, null, completeItem(input)));
