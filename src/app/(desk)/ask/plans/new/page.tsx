import { randomUUID } from 'node:crypto';
import type { Metadata } from 'next';
import { planComposerOf } from '@/app/plan-composer-props';
import { pageActor } from '@/app/session';
import { PlanComposer } from '@/ui/plan/plan-composer';

export const metadata: Metadata = { title: 'A new plan' };

export default async function NewPlanPage({ searchParams }: { searchParams: Promise<{ customer?: string }> }) {
  const actor = await pageActor();
  const { customer } = await searchParams;
  return <PlanComposer {...(await planComposerOf(actor, null, customer ?? ''))} lineId={randomUUID()} />;
}
