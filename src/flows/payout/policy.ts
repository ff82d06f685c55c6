import { changedBetween, payoutPolicySettings } from '@/core/business/money-settings';
import type { PayoutPolicy } from '@/core/payout/policy';
import { businessById } from '@/db/businesses';
import { payoutSettings, updatePayoutPolicy } from '@/db/payouts';
import { desk } from '@/flows/door/operation';
import { noteSettings } from '@/flows/log/log';

/** Keeps when and from which sum on is paid out; it counts for the dates to come. */
export const keepPayoutPolicy = desk('settings').turn(async (tx, policy: PayoutPolicy): Promise<void> => {
  const { paperLocale: locale } = await businessById(tx);
  const before = await payoutSettings(tx);
  await updatePayoutPolicy(tx, policy);
  await noteSettings(
    tx,
    'payouts',
    changedBetween(payoutPolicySettings(before.policy, locale), payoutPolicySettings(policy, locale)),
  );
});
