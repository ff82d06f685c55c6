import { desk } from '@/app/answer';
import { extendVoucher, sendVoucherAgain, stopVoucher } from '@/flows/voucher/vouchers';
import { VoucherDeedInput } from '@/input/voucher-input';

export const POST = desk(VoucherDeedInput, (actor, { input, params }) => {
  const id = params.id ?? '';
  if (input.deed === 'send') return sendVoucherAgain(actor, id, { press: input.requestKey, to: input.to });
  if (input.deed === 'extend') return extendVoucher(actor, id, input.on);
  return stopVoucher(actor, id, input.deed === 'stop');
});
