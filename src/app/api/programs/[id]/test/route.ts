import { desk, Nothing } from '@/app/answer';
import { tellTest } from '@/flows/hook/hooks';

export const POST = desk(Nothing, (actor, { params }) => tellTest(actor, params.id ?? ''));
