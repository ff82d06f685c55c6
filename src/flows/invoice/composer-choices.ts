import type { NumberSeries } from '@/core/invoice/numbering';
import { numberSeries } from '@/db/businesses';
import { personWithEmail } from '@/db/people';
import { recurringOf } from '@/db/recurring';
import { templatesOf } from '@/db/templates';
import { type Terms, termsList } from '@/db/terms';
import { desk } from '@/flows/door/operation';

/** What a paper can be given: series, terms, templates, the customer's recurring invoices; and where a trial copy goes. */
export const composerChoices = desk('see').read(
  async (
    db,
    customerId: string | null,
  ): Promise<{
    series: NumberSeries[];
    terms: Terms[];
    templates: { id: string; name: string }[];
    recurring: { id: string; name: string }[];
    ownEmail: string;
  }> => {
    return {
      series: await numberSeries(db),
      terms: await termsList(db),
      templates: await templatesOf(db),
      recurring: (await recurringOf(db))
        .filter((repeat) => repeat.customerId === customerId && repeat.state !== 'finished')
        .map(({ id, name }) => ({ id, name })),
      ownEmail: (await personWithEmail(db, db.personId))?.email ?? '',
    };
  },
);
