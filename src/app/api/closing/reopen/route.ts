import { desk, Nothing } from '@/app/answer';
import { reopenBusiness } from '@/flows/keeping/closing';

export const POST = desk(Nothing, (actor) => reopenBusiness(actor));
