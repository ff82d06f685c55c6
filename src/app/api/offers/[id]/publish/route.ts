import { desk, Nothing } from '@/app/answer';
import { keepPage, publishHostedPage } from '@/flows/checkout/hosted-page';
import { PageInput } from '@/input/offer-input';

export const PUT = desk(PageInput, (actor, { input, params }) => keepPage(actor, params.id ?? '', input.look));

export const POST = desk(Nothing, async (actor, { params }) => ({
  version: await publishHostedPage(actor, params.id ?? ''),
}));
