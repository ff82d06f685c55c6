import { desk } from '@/app/answer';
import { changeNotices } from '@/flows/parcel/shipments';
import { NoticesInput } from '@/input/parcel-input';

export const POST = desk(NoticesInput, async (actor, { input: { ids, deed, mailOn } }) => ({
  changed: await changeNotices(actor, ids, deed === 'move' ? { deed, mailOn: mailOn as never } : { deed }),
}));
