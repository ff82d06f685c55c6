import { desk } from '@/app/answer';
import { OwnPageWayInput } from '@/app/input/plan-input';
import { sendOwnPage } from '@/flows/plan/own-page';

export const POST = desk(OwnPageWayInput, (actor, { input, params }) => sendOwnPage(actor, params.id ?? '', input.way));
