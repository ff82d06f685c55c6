import { desk, Nothing } from '@/app/answer';
import { renewFeed } from '@/flows/plan/calendar-feed';

export const POST = desk(Nothing, (actor) => renewFeed(actor));
