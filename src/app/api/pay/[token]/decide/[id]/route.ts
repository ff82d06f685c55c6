import { open } from '@/app/answer';
import { decideFile } from '@/flows/invoice/consent';
import { DecisionInput } from '@/input/pay-input';

export const POST = open(DecisionInput, ({ input, params }) =>
  decideFile(params.token ?? '', params.id ?? '', { ...input, approver: input.approver ?? '' }),
);
