import { desk } from '@/app/answer';
import { VersionInput } from '@/app/input/offer-input';
import { restorePage } from '@/flows/checkout/hosted-page';

export const POST = desk(VersionInput, (actor, { input, params }) =>
  restorePage(actor, params.id ?? '', input.version),
);
