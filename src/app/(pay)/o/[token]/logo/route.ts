import { Nothing, open, redirectAnswer } from '@/app/answer';
import { orderLogoPath } from '@/flows/checkout/order-page';

export const GET = open(Nothing, async ({ params }) => redirectAnswer(await orderLogoPath(params.token ?? '')));
