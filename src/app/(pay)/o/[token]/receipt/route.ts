import { fileAnswer, Nothing, open } from '@/app/answer';
import { orderReceiptPdf } from '@/flows/order-page';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await orderReceiptPdf(params.token ?? '')));
