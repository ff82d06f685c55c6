import { desk, Nothing } from '@/app/answer';
import { bringStatement } from '@/flows/parcel/carrier-statements';

/** The body is the file. */
export const POST = desk(Nothing, async (actor, { file }) => ({ month: await bringStatement(actor, await file()) }), {
  from: 'address',
});
