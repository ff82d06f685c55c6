import { Nothing, open, redirectAnswer } from '@/app/answer';
import { offerLogoPath } from '@/flows/checkout/checkout-page';

export const GET = open(Nothing, async ({ params }) => redirectAnswer(await offerLogoPath(params.name ?? '')));
