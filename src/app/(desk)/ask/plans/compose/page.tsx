import { randomUUID } from 'node:crypto';
import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { askedOf } from '@/app/asked';
import { orGone } from '@/app/found';
import { planComposerOf } from '@/app/plan-composer-props';
import { pageActor } from '@/app/session';
import { planSheet } from '@/flows/plan/plan-list';
import { ComposePlanInput } from '@/input/plan-input';
import { PlanComposer } from '@/ui/plan/plan-composer';

export const metadata: Metadata = { title: 'Compose a plan' };

/**
 * The composer of plans: a draft by its id, or a new one, which gets its id while it is typed. Both are one page, so that the
 * change of address takes nothing away from whoever types.
 */
export default async function ComposePlanPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const { plan: id = '', customer = '' } = await askedOf(ComposePlanInput, searchParams);
  if (!id) return <PlanComposer {...(await planComposerOf(actor, null, customer))} lineId={randomUUID()} />;
  const sheet = await orGone(id, planSheet(actor, id), '/ask/plans');
  if (sheet.plan.state !== 'draft') redirect(`/ask/plans/${id}` as Route);
  return <PlanComposer {...(await planComposerOf(actor, sheet.plan, ''))} lineId={id} />;
}
