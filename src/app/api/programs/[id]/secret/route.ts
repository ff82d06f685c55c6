import { desk, Nothing } from '@/app/answer';
import { changeSecret } from '@/flows/hook/hooks';

export const POST = desk(Nothing, (actor, { params }) => changeSecret(actor, params.id ?? ''));
