import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { askedOf } from '@/app/asked';
import { orGone } from '@/app/found';
import { planComposerOf } from '@/app/plan-composer-props';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { planSheet } from '@/flows/plan/plan-list';
import { ComposePlanInput } from '@/input/plan-input';
import { PlanChange } from '@/ui/plan/plan-change';

export const metadata: Metadata = { title: 'Edit a plan' };

/** A running plan, changed whole: what changes is said before, and who has to agree. */
export default async function ChangePlanPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor();
  const { plan: id = '' } = await askedOf(ComposePlanInput, searchParams);
  const { plan } = await orGone(id, planSheet(actor, id), '/ask/plans');
  const runs = (plan.state === 'active' || plan.state === 'paused') && !plan.endsOn;
  if (!runs || !mayDo(actor, 'ask')) redirect(`/ask/plans/${id}` as Route);
  return <PlanChange {...(await planComposerOf(actor, plan, ''))} lineId={id} />;
}
