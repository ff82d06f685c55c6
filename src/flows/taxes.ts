import { type BusinessTax } from '@/core/tax/business-tax';
import { TAX_COLUMNS, taxCells, taxProblems } from '@/core/tax/tax-csv';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { insertTax, retireTaxesBut, taxesOf, updateTax } from '@/db/taxes';
import { inBusiness, readBusiness } from '@/db/transaction';
import { csvText } from '@/documents/csv/write';
import { requireRight } from './access';
import { Refusal } from './refusal';

/** The business's tax rules in their order, without those taken off the list. */
export async function taxRules(actor: Actor): Promise<BusinessTax[]> {
  requireRight(actor, 'read');
  const all = await readBusiness(actor.businessId, (db) => taxesOf(db, actor.businessId));
  return all.filter(({ retired }) => !retired);
}

/**
 * Puts these rules in place of the list as it is; one no longer on it stays for the papers that name it.
 *
 * @throws Refusal `paper-not-ready` with the places, `RULE-ID.field`
 */
export async function keepTaxRules(actor: Actor, rules: readonly BusinessTax[]): Promise<void> {
  requireRight(actor, 'ask');
  const problems = rules.flatMap((rule) =>
    taxProblems(rule).map(({ field, words }) => ({ field: `${rule.id}.${field}`, words })),
  );
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  const { businessId } = actor;
  await inBusiness(businessId, async (tx) => {
    const known = new Set((await taxesOf(tx, businessId)).map(({ id }) => id));
    for (const [position, rule] of rules.entries()) {
      if (known.has(rule.id)) await updateTax(tx, businessId, rule, position);
      else await insertTax(tx, businessId, rule, position);
    }
    await retireTaxesBut(
      tx,
      businessId,
      rules.map(({ id }) => id),
    );
    await announce(tx, businessId);
  });
}

/** The rules as a file that can be brought in again. */
export async function exportTaxRules(actor: Actor): Promise<string> {
  return csvText(TAX_COLUMNS, (await taxRules(actor)).map(taxCells));
}
