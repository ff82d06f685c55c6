import { dateInZone } from '@/core/dates/zone';
import { businessById } from '@/db/businesses';
import {
  insertTransferFile,
  putIntoFile,
  type RefundToTransfer,
  refundsOfFile,
  refundsToTransfer,
  type TransferFile,
  transferFileById,
  transferFiles,
} from '@/db/transfer-files';
import { creditTransferXml } from '@/documents/transfer/credit-transfer';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';

const LATEST = 3;

/** Refunds that wait to go to the bank as transfers, and the files made last. */
export const transfersWaiting = desk('see').read(
  async (db): Promise<{ waiting: RefundToTransfer[]; files: TransferFile[] }> => ({
    waiting: await refundsToTransfer(db),
    files: await transferFiles(db, LATEST),
  }),
);

/**
 * Puts all refunds that wait into a file for the bank; each goes into one only. The same press twice is one file. Returns its id.
 *
 * @throws Refusal `nothing-to-transfer`, `own-account-missing`
 */
export const makeTransferFile = desk('give-back', { again: true }).turn(
  async (tx, requestKey: string): Promise<string> => {
    if (await transferFileById(tx, requestKey)) return requestKey;
    const { bank } = await businessById(tx);
    if (!bank.account.trim()) throw new Refusal('own-account-missing');
    const waiting = await refundsToTransfer(tx);
    if (waiting.length === 0) throw new Refusal('nothing-to-transfer');
    await insertTransferFile(tx, requestKey, tx.name);
    await putIntoFile(
      tx,
      requestKey,
      waiting.map(({ id }) => id),
    );
    return requestKey;
  },
);

/** The file for the bank (ISO 20022 pain.001), the same however often it is fetched. @throws Refusal `not-found` */
export const transferFile = desk('give-back').read(async (db, id: string): Promise<{ name: string; text: string }> => {
  const file = found(await transferFileById(db, id));
  const business = await businessById(db);
  const on = dateInZone(file.madeAt, business.zone);
  const { bank } = business;
  const text = creditTransferXml({
    id: file.id,
    madeAt: file.madeAt,
    on,
    from: { holder: bank.holder || business.name, account: bank.account, bankCode: bank.bankCode },
    transfers: (await refundsOfFile(db, id)).map(({ about, reason, ...refund }) => ({
      ...refund,
      words: [`Refund ${about}`, reason].filter(Boolean).join(': '),
    })),
  });
  return { name: `transfers-${on}-${id.slice(0, 4)}.xml`, text };
});
