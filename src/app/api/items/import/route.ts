import { desk } from '@/app/answer';
import { checkItems, importItems } from '@/flows/records/import-items';
import { ItemRowsInput, textRows } from '@/input/import-input';

export const POST = desk(ItemRowsInput, (actor, { input }) =>
  (input.write ? importItems : checkItems)(actor, textRows(input.rows), input.mapping),
);
