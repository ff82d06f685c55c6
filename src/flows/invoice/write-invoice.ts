/** An invoice written at once, by another program, rather than line by line at the desk. */
import { randomUUID } from 'node:crypto';
import type { Unit } from '@/core/item/item';
import { type DueChoice, newLine, type PaperLine } from '@/core/paper/paper';
import { businessById } from '@/db/businesses';
import { customersByIds } from '@/db/customers';
import { erasedAt } from '@/db/keeping';
import type { Db } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { emptyPaper, writeDraft } from './draft';

/** A line as it is written at once; prices as decimals of the main unit. `taxes` null for those of the customer's place. */
export type WrittenLine = {
  readonly what: string;
  readonly price: string;
  readonly quantity: string;
  readonly unit: Unit;
  readonly discount: string;
  readonly note: string;
  readonly code: string;
  readonly taxClass: string;
  readonly itemId: string | null;
  readonly optionId: string | null;
  readonly taxes: readonly string[] | null;
};

/** The same as a line of a paper. */
export const paperLine = ({ unit, taxes, ...line }: WrittenLine): PaperLine =>
  newLine(randomUUID(), unit, { ...line, ...(taxes ? { taxes, taxesBy: 'person' as const } : {}) });

/** Whoever it is for; gone or unknown they are the place that is wrong. @throws Refusal `paper-not-ready` */
export async function customerFor(db: Db, id: string) {
  const [customer] = await customersByIds(db, [id]);
  if (!customer || (await erasedAt(db, id)))
    throw new Refusal('paper-not-ready', [{ field: 'customerId', words: 'There is no such customer.' }]);
  return customer;
}

/** Which of the business's names or places is called so; null for none. @throws Refusal `paper-not-ready` */
function idOf(
  all: readonly { readonly id: string; readonly name: string; readonly retired: boolean }[],
  called: string,
  field: string,
): string | null {
  if (!called) return null;
  const one = all.find(({ name, retired }) => !retired && name.toLowerCase() === called.toLowerCase());
  if (!one) throw new Refusal('paper-not-ready', [{ field, words: `There is nothing called “${called}” here.` }]);
  return one.id;
}

/** Writes an invoice down as a draft. Returns its id. @throws Refusal `paper-not-ready` */
export const writeInvoice = desk('ask').write(
  async (
    tx,
    asked: {
      readonly customerId: string;
      readonly lines: readonly WrittenLine[];
      readonly title: string;
      readonly reference: string;
      readonly note: string;
      /** Under which trading name and from which location, as they are called; empty for the business's own. */
      readonly tradingName: string;
      readonly location: string;
      readonly discount: string;
      readonly currency: string;
      readonly issuedOn: string;
      readonly serviceFrom: string;
      readonly serviceTo: string;
      readonly due: DueChoice | null;
    },
  ): Promise<string> => {
    const business = await businessById(tx);
    const customer = await customerFor(tx, asked.customerId);
    const { due, lines, tradingName, location, ...head } = asked;
    const paper = {
      ...emptyPaper(business, customer),
      ...head,
      tradingNameId: idOf(business.tradingNames, tradingName, 'tradingName'),
      locationId: idOf(business.locations, location, 'location'),
      ...(due ? { due } : {}),
      lines: lines.map(paperLine),
    };
    const id = await writeDraft(tx, business, paper, { revision: 1, origin: 'desk' });
    await addToTimeline(tx, id, { kind: 'made' }, tx.name);
    return id;
  },
);
