import { desk } from '@/app/answer';
import { RequestInput } from '@/app/input/offer-input';
import { sendRequest } from '@/flows/offer/requests';

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
