import { desk, fileAnswer, Nothing } from '@/app/answer';
import { returnLabel } from '@/flows/returning/return-label';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await returnLabel(actor, params.id ?? '')));
