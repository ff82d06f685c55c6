import { desk } from '@/app/answer';
import type { PayoutWhen } from '@/core/payout/policy';
import { keepPayoutPolicy } from '@/flows/payout/policy';
import { PayoutPolicyInput } from '@/input/payout-input';

export const PUT = desk(PayoutPolicyInput, (actor, { input: { when, smallest, disputes } }) => {
  const whens: Record<typeof when.kind, PayoutWhen> = {
    daily: { kind: 'daily' },
    weekly: { kind: 'weekly', weekday: when.weekday ?? 1 },
    monthly: { kind: 'monthly', day: when.day ?? 1 },
    'by-hand': { kind: 'by-hand' },
  };
  return keepPayoutPolicy(actor, {
    disputes,
    when: whens[when.kind],
    smallest: Object.fromEntries(Object.entries(smallest).map(([currency, minor]) => [currency, String(minor)])),
  });
});
