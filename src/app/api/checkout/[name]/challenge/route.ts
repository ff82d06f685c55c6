import { Nothing, open } from '@/app/answer';
import { checkoutWork } from '@/flows/card-testing';

export const GET = open(Nothing, ({ params }) => checkoutWork(params.name ?? ''));
