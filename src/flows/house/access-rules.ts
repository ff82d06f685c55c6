/** How people of a business sign in, as its owners decide. */
import { accessSettings, changedBetween } from '@/core/business/money-settings';
import { askedAboveMinor, asksForStep } from '@/core/person/steps';
import { accessRules, updateAccessRules } from '@/db/access-rules';
import { businessById } from '@/db/businesses';
import { personWithEmail } from '@/db/people';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';
import { ownSteps } from './steps/own-steps';

/** What is decided, with the usual sum where nothing else is. */
export type AccessView = { readonly stepRequired: boolean; readonly aboveMinor: bigint; readonly currency: string };

export const accessView = desk('see').read(async (db): Promise<AccessView> => {
  const { stepRequired, askedAboveMinor: own } = await accessRules(db);
  const { currency } = await businessById(db);
  return { stepRequired, aboveMinor: askedAboveMinor(own, currency), currency };
});

/**
 * Decides how people sign in; every owner is told.
 *
 * @throws Refusal `step-own-first` where who asks for a second step has none, `prove-again`
 */
export const keepAccessRules = desk('people', { again: true }).turn(
  async (tx, { stepRequired, aboveMinor }: Pick<AccessView, 'stepRequired' | 'aboveMinor'>): Promise<void> => {
    const { currency, deskLocale: locale } = await businessById(tx);
    const { email } = found(await personWithEmail(tx, tx.personId));
    const before = await accessRules(tx);
    if (stepRequired && !before.stepRequired && !asksForStep(await ownSteps(tx, email)))
      throw new Refusal('step-own-first');
    await updateAccessRules(tx, { stepRequired, askedAboveMinor: aboveMinor });
    const was = { ...before, aboveMinor: askedAboveMinor(before.askedAboveMinor, currency) };
    await noteSettings(
      tx,
      'access-rules',
      changedBetween(
        accessSettings(was, currency, locale),
        accessSettings({ stepRequired, aboveMinor }, currency, locale),
      ),
    );
  },
);
