import { randomUUID } from 'node:crypto';
import type { Paper } from '@/core/invoice/paper';
import { freshPaper } from '@/core/invoice/placeholders';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { deleteTemplate, keepTemplate, templatesOf } from '@/db/templates';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { requireRight } from './access';

/** The names of the business's templates. */
export function templateNames(actor: Actor): Promise<{ id: string; name: string }[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => templatesOf(db, actor.businessId));
}

/** Keeps a paper as a template; the name's earlier one gives way. */
export async function keepAsTemplate(actor: Actor, name: string, paper: Paper): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const template = { id: randomUUID(), name, paper: { ...freshPaper(paper, randomUUID), customerId: null } };
  await inBusiness(actor.businessId, async (tx) => {
    await keepTemplate(tx, actor.businessId, template, now);
    await announce(tx, actor.businessId);
  });
}

export async function dropTemplate(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  await inBusiness(actor.businessId, (tx) => deleteTemplate(tx, actor.businessId, id));
}
