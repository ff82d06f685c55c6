import { desk } from '@/app/answer';
import { ItemInput } from '@/app/input/item-input';
import { WordsInput } from '@/app/input/people-input';
import { wholeItem } from '@/app/whole-item';
import { findItems, keepItem } from '@/flows/items';

export const GET = desk(WordsInput, (actor, { input }) => findItems(actor, input.words));

export const POST = desk(ItemInput, (actor, { input }) => keepItem(actor, null, wholeItem(input)));
