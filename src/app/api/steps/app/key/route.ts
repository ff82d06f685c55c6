import { desk, Nothing } from '@/app/answer';
import { newApp } from '@/flows/house/steps/set-up';

export const POST = desk(Nothing, (actor) => newApp(actor));
