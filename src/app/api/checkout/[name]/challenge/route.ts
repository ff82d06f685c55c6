import { Nothing, open } from '@/app/answer';
import { checkoutWork } from '@/flows/payment/card-testing';

export const GET = open(Nothing, ({ params }) => checkoutWork(params.name ?? ''));
