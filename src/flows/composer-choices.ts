import type { NumberSeries } from '@/core/invoice/numbering';
import { numberSeries } from '@/db/businesses';
import { type Actor, emailOf } from '@/db/people';
import { repeatsOf } from '@/db/repeats';
import { templatesOf } from '@/db/templates';
import { type Terms, termsList } from '@/db/terms';
import { readBusiness } from '@/db/transaction';
import { requireRight } from './access';

/** What a paper can be given: series, terms, templates, the customer's repeats; and where a trial copy goes. */
export function composerChoices(
  actor: Actor,
  customerId: string | null,
): Promise<{
  series: NumberSeries[];
  terms: Terms[];
  templates: { id: string; name: string }[];
  repeats: { id: string; name: string }[];
  ownEmail: string;
}> {
  requireRight(actor, 'read');
  const { businessId } = actor;
  return readBusiness(businessId, async (db) => ({
    series: await numberSeries(db, businessId),
    terms: await termsList(db, businessId),
    templates: await templatesOf(db, businessId),
    repeats: (await repeatsOf(db, businessId))
      .filter((repeat) => repeat.customerId === customerId && repeat.state !== 'finished')
      .map(({ id, name }) => ({ id, name })),
    ownEmail: await emailOf(db, businessId, actor.personId),
  }));
}
