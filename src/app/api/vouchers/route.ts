import { voucherRow } from '@/app/(desk)/records/vouchers/voucher-row';
import { desk } from '@/app/answer';
import { voucherList } from '@/flows/voucher/vouchers';
import { VouchersInput } from '@/input/voucher-input';

export const GET = desk(VouchersInput, async (actor, { input }) => {
  const list = await voucherList(actor, { words: input.words, after: input.id ?? '' });
  return { rows: list.rows.map((row) => voucherRow(row, list)), next: list.next ? { key: '', id: list.next } : null };
});
