import { desk, Nothing } from '@/app/answer';
import { confirmAccount, leaveAccount } from '@/flows/payout/accounts';
import { ConfirmAccountInput } from '@/input/payout-input';

export const POST = desk(ConfirmAccountInput, (actor, { params, input }) =>
  confirmAccount(actor, params.id ?? '', input.sums.map(BigInt)),
);

export const DELETE = desk(Nothing, (actor, { params }) => leaveAccount(actor, params.id ?? ''));
