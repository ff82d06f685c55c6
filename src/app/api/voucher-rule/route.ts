import { desk } from '@/app/answer';
import { keepVoucherRule } from '@/flows/voucher/vouchers';
import { VoucherRuleInput } from '@/input/voucher-input';

export const PUT = desk(VoucherRuleInput, (actor, { input }) =>
  keepVoucherRule(actor, { months: input.months ?? null, toYearEnd: input.toYearEnd }),
);
