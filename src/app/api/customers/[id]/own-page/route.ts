import { desk } from '@/app/answer';
import { sendOwnPage } from '@/flows/plan/own-page';
import { OwnPageWayInput } from '@/input/plan-input';

export const POST = desk(OwnPageWayInput, (actor, { input, params }) => sendOwnPage(actor, params.id ?? '', input.way));
