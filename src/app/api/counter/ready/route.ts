import { desk } from '@/app/answer';
import { tellReady } from '@/flows/counter/collect';
import { PutOnInput } from '@/input/parcel-input';

export const POST = desk(PutOnInput, async (actor, { input: { ids } }) => ({ told: await tellReady(actor, ids) }));
