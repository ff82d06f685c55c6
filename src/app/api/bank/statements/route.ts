import { jsonImported } from '@/app/(desk)/money/bank/json-bank';
import { desk } from '@/app/answer';
import { importStatement } from '@/flows/bank/import-statement';
import { StatementInput } from '@/input/bank-input';

/** The body is the file. */
export const POST = desk(
  StatementInput,
  async (actor, { input, file }) =>
    jsonImported(await importStatement(actor, input.name, await file(), input.mapping ?? null)),
  { from: 'address' },
);
