import { fileAnswer, Nothing, open } from '@/app/answer';
import { orderReceiptPdf } from '@/flows/checkout/order-page';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await orderReceiptPdf(params.token ?? '')));
