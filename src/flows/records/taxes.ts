import { changedBetween, taxSettings } from '@/core/business/money-settings';
import { type BusinessTax } from '@/core/tax/business-tax';
import { TAX_COLUMNS, taxCells, taxProblems } from '@/core/tax/tax-csv';
import { insertTax, retireTaxesBut, taxesOf, updateTax } from '@/db/taxes';
import { csvText } from '@/documents/csv/write';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { noteSettings } from '@/flows/log/log';

/** The business's tax rules in their order, without those taken off the list. */
export const taxRules = desk('see').run(async (ctx): Promise<BusinessTax[]> => {
  const all = await ctx.read((db) => taxesOf(db));
  return all.filter(({ retired }) => !retired);
});

/**
 * Puts these rules in place of the list as it is; one no longer on it stays for the papers that name it.
 *
 * @throws Refusal `paper-not-ready` with the places, `RULE-ID.field`
 */
export const keepTaxRules = desk('settings').run(async (ctx, rules: readonly BusinessTax[]): Promise<void> => {
  const problems = rules.flatMap((rule) =>
    taxProblems(rule).map(({ field, words }) => ({ field: `${rule.id}.${field}`, words })),
  );
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  await ctx.write(async (tx) => {
    const before = await taxesOf(tx);
    const known = new Set(before.map(({ id }) => id));
    for (const [position, rule] of rules.entries()) {
      if (known.has(rule.id)) await updateTax(tx, rule, position);
      else await insertTax(tx, rule, position);
    }
    await retireTaxesBut(
      tx,
      rules.map(({ id }) => id),
    );
    await noteSettings(tx, 'taxes', changedBetween(taxSettings(before), taxSettings(rules)));
  });
});

/** The rules as a file that can be brought in again. */
export const exportTaxRules = desk('see').run(async (ctx): Promise<string> => {
  return csvText(TAX_COLUMNS, (await taxRules(ctx.actor)).map(taxCells));
});
