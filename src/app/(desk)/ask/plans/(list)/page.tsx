import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { planFigures } from '@/flows/plan/upcoming';
import { PlanFigures } from '@/ui/plan/plan-figures';

export const metadata: Metadata = { title: 'Billing plans' };

export default async function PlansPage() {
  const { all: _, beside, ...figures } = await planFigures(await pageActor());
  return (
    <PlanFigures
      {...figures}
      beside={beside.map(({ currency, received, expected }) => ({
        received: { minor: received, currency },
        expected: { minor: expected, currency },
      }))}
      months={figures.months.map(({ expectedMinor, openMinor, receivedMinor, ...month }) => ({
        ...month,
        open: jsonMinor(openMinor),
        expected: jsonMinor(expectedMinor),
        received: jsonMinor(receivedMinor),
      }))}
    />
  );
}
