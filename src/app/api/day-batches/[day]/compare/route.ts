import { desk, Nothing } from '@/app/answer';
import { compareAgain } from '@/flows/day/close-days';

export const POST = desk(Nothing, (actor, { params }) => compareAgain(actor, params.day ?? ''));
