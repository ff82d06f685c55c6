import { desk } from '@/app/answer';
import { keepNews } from '@/flows/house/own-settings';
import { NewsInput } from '@/input/own-settings-input';

export const PUT = desk(NewsInput, (actor, { input }) => keepNews(actor, { ...input }));
