import { open } from '@/app/answer';
import { acceptChange } from '@/flows/plan/change-terms';
import { AcceptChangeInput } from '@/input/plan-input';

/** The customer agrees to a change. */
export const POST = open(AcceptChangeInput, ({ input, params, address }) =>
  acceptChange(params.token ?? '', input, address),
);
