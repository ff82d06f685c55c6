import { Nothing, open } from '@/app/answer';
import { invoiceWork } from '@/flows/payment/card-testing';

export const GET = open(Nothing, ({ params }) => invoiceWork(params.token ?? ''));
