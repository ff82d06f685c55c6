import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { orGone } from '@/app/found';
import { planComposerOf } from '@/app/plan-composer-props';
import { pageActor } from '@/app/session';
import { planSheet } from '@/flows/plans/plan-list';
import { PlanComposer } from '@/ui/plan/plan-composer';

export const metadata: Metadata = { title: 'Compose a plan' };

export default async function ComposePlanPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { plan } = await orGone(id, planSheet(actor, id), '/ask/plans');
  if (plan.state !== 'draft') redirect(`/ask/plans/${id}` as Route);
  return <PlanComposer key={id} {...(await planComposerOf(actor, plan, ''))} lineId={id} />;
}
