import { desk } from '@/app/answer';
import { haveSeenNews } from '@/flows/house/own-settings';
import { SeenNewsInput } from '@/input/own-settings-input';

export const PUT = desk(SeenNewsInput, (actor, { input }) => haveSeenNews(actor, input.upTo));
