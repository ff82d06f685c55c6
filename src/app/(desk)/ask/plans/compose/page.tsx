import { randomUUID } from 'node:crypto';
import type { Metadata, Route } from 'next';
import { redirect } from 'next/navigation';
import { orGone } from '@/app/found';
import { planComposerOf } from '@/app/plan-composer-props';
import { pageActor } from '@/app/session';
import { planSheet } from '@/flows/plan/plan-list';
import { PlanComposer } from '@/ui/plan/plan-composer';

export const metadata: Metadata = { title: 'Compose a plan' };

type Asked = { plan?: string | string[]; customer?: string | string[] };
const one = (text: string | string[] | undefined): string => (typeof text === 'string' ? text : '');

/**
 * The composer of plans: a draft by its id, or a new one, which gets its id while it is typed. Both are one page, so that the
 * change of address takes nothing away from whoever types.
 */
export default async function ComposePlanPage({ searchParams }: { searchParams: Promise<Asked> }) {
  const actor = await pageActor();
  const { plan, customer } = await searchParams;
  const id = one(plan);
  if (!id) return <PlanComposer {...(await planComposerOf(actor, null, one(customer)))} lineId={randomUUID()} />;
  const sheet = await orGone(id, planSheet(actor, id), '/ask/plans');
  if (sheet.plan.state !== 'draft') redirect(`/ask/plans/${id}` as Route);
  return <PlanComposer {...(await planComposerOf(actor, sheet.plan, ''))} lineId={id} />;
}
