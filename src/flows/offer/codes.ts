import { randomUUID } from 'node:crypto';
import { codeKey } from '@/core/offer/code';
import { archiveCode, type CodeRow, type CodeUse, codeRows, type KeptCode, keepCode, latestUses } from '@/db/codes';
import { isTaken } from '@/db/sql';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';

export type { CodeRow, KeptCode };

/** The business's discount codes, latest first, with their uses and what they brought in. */
export const codeList = desk('see').read(async (db): Promise<CodeRow[]> => {
  return codeRows(db);
});

/** What is wrong with a code as typed, at its places. */
function faults(code: Omit<KeptCode, 'id'>): { field: string; words: string }[] {
  const found: { field: string; words: string }[] = [];
  if (codeKey(code.code).length < 3)
    found.push({ field: 'code', words: 'A code has at least three letters or digits.' });
  if ((code.percent === null) === (code.amountMinor === null))
    found.push({ field: 'off', words: 'Write what it takes off, as 10% or as an amount.' });
  if (code.percent !== null && !(Number(code.percent) > 0 && Number(code.percent) <= 100))
    found.push({ field: 'off', words: 'A discount in percent lies between 0 and 100.' });
  if (code.amountMinor !== null && code.amountMinor <= 0n)
    found.push({ field: 'off', words: 'Write what it takes off, as 10% or as an amount.' });
  if (code.from && code.to && code.to < code.from)
    found.push({ field: 'to', words: 'The last day lies before the first.' });
  return found;
}

/** The latest uses of codes that went through. */
export const latestCodeUses = desk('see').read((db): Promise<CodeUse[]> => latestUses(db, 12));

/** Keeps a code, new or changed. @throws Refusal `offer-not-ready` with the places, `code-word-taken`, `not-found` */
export const storeCode = desk('records').run(
  async (ctx, id: string | null, fields: Omit<KeptCode, 'id'>): Promise<KeptCode> => {
    const found = faults(fields);
    if (found.length > 0) throw new Refusal('offer-not-ready', found);
    const code: KeptCode = { id: id ?? randomUUID(), ...fields, code: codeKey(fields.code) };
    try {
      await ctx.write(async (tx) => {
        if ((await keepCode(tx, code, code.code)) === 0) throw new Refusal('not-found');
      });
    } catch (error) {
      if (isTaken(error, 'discount_codes'))
        throw new Refusal('code-word-taken', [{ field: 'code', words: 'You have another code of these letters.' }]);
      throw error;
    }
    return code;
  },
);

/** Takes a code off the list: it counts no more; what it gave stays given. */
export const removeCode = desk('records').write(async (tx, id: string): Promise<void> => {
  if ((await archiveCode(tx, id)) === 0) throw new Refusal('not-found');
});
