import { desk, Nothing } from '@/app/answer';
import { compareAgain } from '@/flows/close-days';

export const POST = desk(Nothing, (actor, { params }) => compareAgain(actor, params.day ?? ''));
