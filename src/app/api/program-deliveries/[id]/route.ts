import { desk, Nothing } from '@/app/answer';
import { tellAgain } from '@/flows/hook/hooks';

export const POST = desk(Nothing, (actor, { params }) => tellAgain(actor, params.id ?? ''));
