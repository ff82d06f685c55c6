import { desk, Nothing } from '@/app/answer';
import { removeAtDesk } from '@/flows/plan/cards-on-file';

export const DELETE = desk(Nothing, (actor, { params }) => removeAtDesk(actor, params.id ?? ''));
