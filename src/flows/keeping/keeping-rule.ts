/** How long things are kept, as the business decides it and its customers read it. */

import { sellerOf } from '@/core/business/business';
import { changedBetween, keepingSettings } from '@/core/business/money-settings';
import { type Seller } from '@/core/invoice/printed';
import { type KeepingRule, keepingProblems, keepingRule, lawYears } from '@/core/keeping/keeping';
import { businessById } from '@/db/businesses';
import { keepingState, updateKeeping } from '@/db/keeping';
import { KEPT_LINK } from '@/flows/door/links';
import { byLink, desk, orNull } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { servedPath } from '@/flows/file/served-file';
import { noteSettings } from '@/flows/log/log';

/** What holds, and the least years of the law. */
export const keepingView = desk('people').read(
  async (db): Promise<{ readonly rule: KeepingRule; readonly lawYears: number }> => {
    const { country } = await businessById(db);
    return { rule: keepingRule((await keepingState(db)).kept, country), lawYears: lawYears(country) };
  },
);

/** Decides how long things are kept; every owner is told. @throws Refusal `keeping-wrong` with the places */
export const keepKeepingRule = desk('people').turn(async (tx, rule: KeepingRule): Promise<void> => {
  const { country } = await businessById(tx);
  const problems = keepingProblems(rule, country);
  if (problems.length > 0) throw new Refusal('keeping-wrong', problems);
  const before = keepingRule((await keepingState(tx)).kept, country);
  await updateKeeping(tx, rule);
  await noteSettings(tx, 'keeping', changedBetween(keepingSettings(before), keepingSettings(rule)));
});

/** What a customer reads of what is kept of them. */
export type KeptPage = {
  readonly rule: KeepingRule;
  readonly seller: Seller;
  readonly accent: string;
  readonly logo: string | null;
  readonly locale: string;
};

/** What is kept by the business whose link it is; null for a link that is nobody's. */
export const keptPage = orNull(
  byLink(KEPT_LINK).read(async (db): Promise<KeptPage> => {
    const business = await businessById(db);
    return {
      rule: keepingRule((await keepingState(db)).kept, business.country),
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId ? servedPath(db, business.logoId) : null,
      locale: business.paperLocale,
    };
  }),
);
