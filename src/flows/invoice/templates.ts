import { randomUUID } from 'node:crypto';
import { anothersPaper } from '@/core/invoice/placeholders';
import type { Paper } from '@/core/paper/paper';
import { deleteTemplate, keepTemplate, templatesOf } from '@/db/templates';
import { desk } from '@/flows/door/operation';

/** The names of the business's templates. */
export const templateNames = desk('see').read(async (db): Promise<{ id: string; name: string }[]> => {
  return templatesOf(db);
});

/** Keeps a paper as a template; the name's earlier one gives way. */
export const keepAsTemplate = desk('ask').run(
  async (ctx, name: string, paper: Paper, withFiles?: boolean): Promise<void> => {
    const kept = { ...anothersPaper(paper, randomUUID, withFiles), customerId: null };
    const template = { id: randomUUID(), name, paper: kept };
    await ctx.write(async (tx) => {
      await keepTemplate(tx, template);
    });
  },
);

export const dropTemplate = desk('ask').write(async (tx, id: string): Promise<void> => {
  await deleteTemplate(tx, id);
});
