import { open } from '@/app/answer';
import { DecisionInput } from '@/app/input/pay-input';
import { decideFile } from '@/flows/invoice/consent';

export const POST = open(DecisionInput, ({ input, params }) => decideFile(params.token ?? '', params.id ?? '', input));
