import { desk, Nothing } from '@/app/answer';
import { removeAtDesk } from '@/flows/plans/cards-on-file';

export const DELETE = desk(Nothing, (actor, { params }) => removeAtDesk(actor, params.id ?? ''));
