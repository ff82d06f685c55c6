import { desk } from '@/app/answer';
import { sendRequest } from '@/flows/offer/requests';
import { RequestInput } from '@/input/offer-input';

export const POST = desk(RequestInput, (actor, { input: { amount, answers, ...fields }, params }) =>
  sendRequest(actor, params.id ?? '', {
    ...fields,
    filled: {
      ...(fields.toName ? { name: fields.toName } : {}),
      ...(fields.way === 'mail' && fields.toAddress ? { email: fields.toAddress } : {}),
      ...(amount ? { amount } : {}),
      ...(Object.keys(answers).length > 0 ? { answers } : {}),
    },
  }),
);
