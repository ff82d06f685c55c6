import { desk, fileAnswer } from '@/app/answer';
import { exportMany } from '@/flows/invoice/many-invoices';
import { ManyFileInput } from '@/input/search-input';

/** Asked with a body: many ids do not fit into an address. */
export const POST = desk(ManyFileInput, async (actor, { input }) =>
  fileAnswer(await exportMany(actor, input.ids, input.form)),
);
