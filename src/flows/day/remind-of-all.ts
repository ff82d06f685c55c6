import type { ManyResult } from '@/flows/door/many';
import { desk } from '@/flows/door/operation';
import { remindMany } from '@/flows/invoice/many-invoices';
import { remindOfLateParts } from '@/flows/plan/remind-of-parts';

/** Reminds of invoices and of late parts of plans together, as Today lists them. */
export const remindOfAll = desk('ask').run(
  async (
    ctx,
    of: { readonly invoiceIds: readonly string[]; readonly planIds: readonly string[] },
    requestKey: string,
  ): Promise<ManyResult> => {
    const invoices = await remindMany(ctx.actor, of.invoiceIds, requestKey);
    const parts = await remindOfLateParts(ctx.actor, of.planIds, requestKey);
    return { done: invoices.done + parts.done, refused: [...invoices.refused, ...parts.refused] };
  },
);
