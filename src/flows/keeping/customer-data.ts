/** A customer's data: taken along as one file, and forgotten. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { ERASED_NAME, keepingRule, keptUntil, papersKeptFrom } from '@/core/keeping/keeping';
import { OF_CUSTOMER, type OpenThing, openThings } from '@/core/keeping/open-things';
import { wordsOf } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { cardsOf } from '@/db/cards';
import { customerData } from '@/db/customer-data';
import { customerById, lockedCustomer } from '@/db/customers';
import { erasedAt, forgetCustomer, forgetPapers, keepingState, lastPaperOn, openCounts } from '@/db/keeping';
import { countAttempt, type Limit } from '@/db/limits';
import type { Db } from '@/db/pool';
import { emptyAnswers } from '@/db/program-keys';
import { pathPart, zipStream } from '@/documents/zip';
import { OWN_PAGE_LINK } from '@/flows/door/links';
import { byLink, type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { localeOf } from '@/flows/invoice/paper-setting';
import { noteChange, noteExport } from '@/flows/log/log';
import { dropLater } from '@/flows/plan/claim-card';
import { type Archive, customerFiles } from './archive-files';

/** Everything of a customer as one archive. @param inside whether what the business writes for itself is among it */
async function archiveOf(ctx: Context, customerId: string, inside: boolean): Promise<Archive> {
  const { about, name, parts } = await ctx.read(async (db) => {
    const customer = found(await customerById(db, customerId));
    const business = await businessById(db);
    const locale = localeOf(business, customer);
    const words = wordsOf(locale).keeping;
    const day = longDate(dateInZone(db.now, business.zone), locale);
    return {
      about: words.readMe(customer.name, business.name, day) + (inside ? '' : `\n${words.readMeOwn}`),
      name: customer.name,
      parts: await customerData(db, customerId, inside),
    };
  });
  const files = await customerFiles(ctx, customerId, { about, parts });
  return { name: `${pathPart(name)}.zip`, parts: zipStream(files) };
}

/** Everything of a customer, for the desk; that it was taken stands in the log. @throws Refusal `not-found` */
export const customerArchive = desk('records', { whenClosed: true }).run(async (ctx, id: string): Promise<Archive> => {
  const archive = await archiveOf(ctx, id, true);
  await ctx.write((tx) => noteExport(tx, 'Everything of one customer', id));
  return archive;
});

const OWN: Limit = { name: 'own-archive', attempts: 6, seconds: 86_400 };

/**
 * Everything of a customer, fetched by themselves on their own page; what the business writes for itself is not in it.
 *
 * @throws Refusal `link-over`, `asked-too-often`, `not-found`
 */
export const ownArchive = byLink(OWN_PAGE_LINK).run(async (ctx, { customerId, over }): Promise<Archive> => {
  if (over) throw new Refusal('link-over');
  if (await ctx.read((db) => erasedAt(db, customerId))) throw new Refusal('not-found');
  if ((await countAttempt(OWN, customerId)) > 0) throw new Refusal('asked-too-often');
  return archiveOf(ctx, customerId, false);
});

/** What erasing a customer would do: what is dealt with first, and until when papers still name them. */
export type ErasingView = {
  readonly open: readonly OpenThing[];
  /** The last day on which a paper names them; null where none does. */
  readonly papersUntil: CalendarDate | null;
  /** When they were erased; null for who is not. */
  readonly erasedAt: Date | null;
};

async function viewOf(db: Db, id: string): Promise<ErasingView> {
  const { country } = await businessById(db);
  const rule = keepingRule((await keepingState(db)).kept, country);
  const last = await lastPaperOn(db, id);
  return {
    open: openThings(await openCounts(db, id), OF_CUSTOMER),
    papersUntil: last && keptUntil(last, rule),
    erasedAt: await erasedAt(db, id),
  };
}

export const erasingView = desk('records').read(async (db, id: string): Promise<ErasingView> => {
  found(await customerById(db, id));
  return viewOf(db, id);
});

/**
 * Blanks a customer: at once everywhere but on papers that the law wants kept, and those when their time is over. The books stay as they
 * are. Nothing of it can be taken back.
 *
 * @throws Refusal `not-found`, `still-open` with what is open, `prove-again`
 */
export const eraseCustomer = desk('records', { again: true }).turn(async (tx, id: string): Promise<void> => {
  found(await lockedCustomer(tx, id));
  const { open } = await viewOf(tx, id);
  if (open.length > 0)
    throw new Refusal(
      'still-open',
      open.map(({ kind, words }) => ({ field: kind, words: `${words}.` })),
    );
  // The processor forgets their cards too.
  for (const card of await cardsOf(tx, id)) await dropLater(tx, card.keptId);
  await forgetCustomer(tx, id, ERASED_NAME);
  const { country, zone } = await businessById(tx);
  const rule = keepingRule((await keepingState(tx)).kept, country);
  await forgetPapers(tx, id, papersKeptFrom(dateInZone(tx.now, zone), rule), ERASED_NAME);
  // What other programs were answered may tell of them.
  await emptyAnswers(tx);
  await noteChange(tx, 'customer-erased', [{ what: 'Customer', from: '', to: id }]);
});
