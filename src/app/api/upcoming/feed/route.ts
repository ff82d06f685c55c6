import { desk, Nothing } from '@/app/answer';
import { renewFeed } from '@/flows/plans/calendar-feed';

export const POST = desk(Nothing, (actor) => renewFeed(actor));
