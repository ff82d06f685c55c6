import { desk, Nothing } from '@/app/answer';
import { dropTerms } from '@/flows/records/profile';

export const DELETE = desk(Nothing, (actor, { params }) => dropTerms(actor, params.id ?? ''));
