import { desk } from '@/app/answer';
import { restorePage } from '@/flows/checkout/hosted-page';
import { VersionInput } from '@/input/offer-input';

export const POST = desk(VersionInput, (actor, { input, params }) =>
  restorePage(actor, params.id ?? '', input.version),
);
