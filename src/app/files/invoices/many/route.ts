import { desk, fileAnswer } from '@/app/answer';
import { ManyFileInput } from '@/app/input/search-input';
import { exportMany } from '@/flows/invoice/many-invoices';

/** Asked with a body: many ids do not fit into an address. */
export const POST = desk(ManyFileInput, async (actor, { input }) =>
  fileAnswer(await exportMany(actor, input.ids, input.form)),
);
