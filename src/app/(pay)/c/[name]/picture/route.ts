import { Nothing, open, redirectAnswer } from '@/app/answer';
import { offerPicturePath } from '@/flows/checkout/checkout-page';

export const GET = open(Nothing, async ({ params }) => redirectAnswer(await offerPicturePath(params.name ?? '')));
