import { desk } from '@/app/answer';
import { sendCardLinks } from '@/flows/plan/own-page';
import { CardLinksInput } from '@/input/today-input';

export const POST = desk(CardLinksInput, (actor, { input }) =>
  sendCardLinks(actor, input.customerIds, input.requestKey),
);
