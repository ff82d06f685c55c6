'use client';
import { useRouter } from 'next/navigation';
import { typedMinor } from '@/core/invoice/read-paper';
import { minorDigits } from '@/core/money/currency';
import { plainSum } from '@/core/money/money-text';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Form, useTyped } from '../kit/form';
import { MoneyField } from '../kit/money-field';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

/** How people sign in, as the business decided; the sum in minor units. */
export type ShownAccess = { readonly stepRequired: boolean; readonly aboveMinor: number; readonly currency: string };

/** Decides how people sign in, and from which sum on they are asked again. */
export function AccessForm({ access }: { access: ShownAccess }) {
  const router = useRouter();
  const { currency } = access;
  const form = useTyped({
    start: { stepRequired: access.stepRequired, above: plainSum(BigInt(access.aboveMinor), currency) },
    shape: () => import('@/input/step-input').then(({ AccessInput }) => AccessInput),
    // What is no number is refused by the rule, at its field.
    body: ({ stepRequired, above }) => ({
      stepRequired,
      aboveMinor: Number(typedMinor(above, minorDigits(currency)) ?? Number.NaN),
    }),
    send: (body) => send('PUT', '/api/access-rules', body),
    done: () => {
      say('This holds from now on');
      router.refresh();
    },
  });
  const { values, set, at } = form;
  return (
    <Form
      of={form}
      legend="How people sign in"
      actions={
        <Button
          type="submit"
          busy={form.busy}
          busyWords="Saving it"
          className="justify-self-start"
          disabled={!form.changed}
        >
          Save how people sign in
        </Button>
      }
    >
      <TickField
        label="Everybody has a second step"
        hint="Whoever has none sets one up at the next press, before anything else."
        checked={values.stepRequired}
        onChange={(event) => set({ stepRequired: event.target.checked })}
      />
      <MoneyField
        className="max-w-[260px]"
        label="Ask again before giving back more than"
        hint="In another currency always. Bank accounts and people are always asked for again. Who has just shown it is not asked for five minutes."
        currency={currency}
        value={values.above}
        error={at('aboveMinor')}
        onChange={(event) => set({ above: event.target.value })}
      />
    </Form>
  );
}
