import { jsonMinor } from '@/core/money/money';
import type { UpcomingRow, UpcomingWords } from '@/flows/plan/upcoming';
import type { UpcomingInput } from '@/input/plan-input';
import type { JsonCharge } from '@/ui/upcoming/json-charge';

/** What a list over all charges was asked for. */
export const upcomingWords = (
  asked: Partial<Record<'words' | 'state' | 'from' | 'to' | 'notCarried', string>> | UpcomingInput,
): UpcomingWords => ({
  words: asked.words ?? '',
  state: (asked.state ?? '') as UpcomingWords['state'],
  from: asked.from ?? '',
  to: asked.to ?? '',
  notCarried: asked.notCarried === 'yes',
});

/** A charge as the list shows it. */
export const jsonUpcoming = (row: UpcomingRow): JsonCharge => ({
  id: row.id,
  planId: row.planId,
  on: row.chargedOn,
  nominal: row.nominal,
  customer: row.customer,
  plan: row.plan,
  number: row.planNumber,
  state: row.state,
  minor: jsonMinor(row.amountMinor),
  currency: row.currency,
  reason: row.lastReason,
  againAt: row.state === 'refused' && row.actAt ? row.actAt.toISOString() : null,
  carried: row.carriedAt ? { at: row.carriedAt.toISOString(), by: row.carriedBy ?? '' } : null,
});
