import { desk, Nothing } from '@/app/answer';
import { mailOwnPage } from '@/flows/plans/own-page';

export const POST = desk(Nothing, (actor, { params }) => mailOwnPage(actor, params.id ?? ''));
