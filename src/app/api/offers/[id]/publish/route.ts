import { desk, Nothing } from '@/app/answer';
import { PageInput } from '@/app/input/offer-input';
import { keepPage, publishHostedPage } from '@/flows/checkout/hosted-page';

export const PUT = desk(PageInput, (actor, { input, params }) => keepPage(actor, params.id ?? '', input.look));

export const POST = desk(Nothing, async (actor, { params }) => ({
  version: await publishHostedPage(actor, params.id ?? ''),
}));
