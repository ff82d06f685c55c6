import type { Metadata } from 'next';
import { askedOf } from '@/app/asked';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { customerStatement } from '@/flows/records/statement';
import { StatementInput } from '@/input/recurring-input';
import { StatementView } from '@/ui/statement/statement-view';

export const metadata: Metadata = { title: 'Statement of account' };

type Props = {
  params: Promise<{ id: string }>;
  searchParams: Promise<object>;
};

export default async function StatementPage({ params, searchParams }: Props) {
  const actor = await pageActor();
  const { id } = await params;
  const { from = '', to = '', currency = '' } = await askedOf(StatementInput, searchParams);
  const statement = await orNotFound(id, customerStatement(actor, id, { from, to, currency }));
  const { lines, open, ages, ...rest } = statement;
  return (
    <StatementView
      customerId={id}
      statement={{
        ...rest,
        lines: lines.map((line) => ({
          ...line,
          chargedMinor: jsonMinor(line.chargedMinor),
          receivedMinor: jsonMinor(line.receivedMinor),
          balanceMinor: jsonMinor(line.balanceMinor),
        })),
        ages: Object.fromEntries(Object.entries(ages).map(([age, minor]) => [age, jsonMinor(minor)])),
        openCount: open.length,
      }}
      mayAsk={mayDo(actor, 'ask')}
    />
  );
}
