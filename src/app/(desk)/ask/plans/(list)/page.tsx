import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { planFigures } from '@/flows/plans/upcoming';
import { PlanFigures } from '@/ui/plan/plan-figures';

export const metadata: Metadata = { title: 'Billing plans' };

export default async function PlansPage() {
  const figures = await planFigures(await pageActor());
  return (
    <PlanFigures
      {...figures}
      months={figures.months.map(({ expectedMinor, receivedMinor, ...month }) => ({
        ...month,
        expected: Number(expectedMinor),
        received: Number(receivedMinor),
      }))}
    />
  );
}
