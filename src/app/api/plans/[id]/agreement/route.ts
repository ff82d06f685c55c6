import { desk, Nothing } from '@/app/answer';
import { planAgreement } from '@/flows/plan/agreement';

/** What the customer of a plan agrees to, for the desk to show or to read out. */
export const GET = desk(Nothing, (actor, { params }) => planAgreement(actor, params.id ?? ''));
