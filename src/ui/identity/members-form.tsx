'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type IdentityProblem, type Member, MOST_MEMBERS, TOLD_ABOVE } from '@/core/identity/identity';
import { Button } from '../kit/button';
import { DateField } from '../kit/date-field';
import { Field, FieldError } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { SelectField } from '../kit/select';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

type Country = { readonly code: string; readonly name: string };

const blank = (country: string, acts: boolean, name = ''): Member => ({
  id: crypto.randomUUID(),
  name,
  born: '',
  country,
  position: '',
  share: 0,
  acts,
});

/** What is told of who acts for the business, and of whoever holds more than a quarter of it. */
export function MembersForm({
  me,
  country,
  members,
  countries,
}: {
  me: string;
  country: string;
  members: readonly Member[];
  countries: readonly Country[];
}) {
  const router = useRouter();
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const form = useTyped<{ members: readonly Member[] }, readonly IdentityProblem[]>({
    start: { members: members.length > 0 ? members : [blank(country, true, me)] },
    shape: () => import('@/input/identity-input').then(({ MembersInput }) => MembersInput),
    send: (body) => send('PUT', '/api/identity', body),
    done: (wrong) => {
      setProblems(Object.fromEntries(wrong.map(({ field, words }) => [field, words])));
      if (wrong.length === 0) say('Saved. Now the pictures');
      router.refresh();
    },
  });
  const all = form.values.members;
  const change = (index: number, part: Partial<Member>) =>
    form.set({ members: all.map((one, at) => (at === index ? { ...one, ...part } : one)) });
  const at = (field: string): string | undefined => form.at(field) ?? problems[field];
  return (
    <Form
      of={form}
      legend="Who stands behind it"
      actions={
        <div className="flex flex-wrap items-center gap-4">
          <Button type="submit" busy={form.busy} busyWords="Saving it">
            Save
          </Button>
          {all.length < MOST_MEMBERS ? (
            <Button look="link" opens onClick={() => form.set({ members: [...all, blank(country, false)] })}>
              Somebody else holds more than {TOLD_ABOVE} percent
            </Button>
          ) : null}
        </div>
      }
    >
      {all.map((member, index) => (
        <fieldset key={member.id} className="min-w-0 border-t border-rule pt-4 first:border-t-0 first:pt-0">
          <legend className="sr-only">{member.acts ? 'You' : `Somebody else, ${index}`}</legend>
          <div className="grid gap-4 sm:grid-cols-2">
            <Field
              label={member.acts ? 'Your whole name, as in your document' : 'Their whole name'}
              className="sm:col-span-2"
              autoComplete={member.acts ? 'name' : 'off'}
              maxLength={120}
              value={member.name}
              error={at(`members.${index}.name`)}
              onChange={(event) => change(index, { name: event.target.value })}
            />
            <DateField
              label="Day of birth"
              value={member.born}
              error={at(`members.${index}.born`)}
              onDay={(born) => change(index, { born })}
            />
            <SelectField
              label="Lives in"
              value={member.country}
              error={at(`members.${index}.country`)}
              onChange={(event) => change(index, { country: event.target.value })}
            >
              {countries.map(({ code, name }) => (
                <option key={code} value={code}>
                  {name}
                </option>
              ))}
            </SelectField>
            {member.acts ? (
              <Field
                label="What you are in the business"
                hint="Owner, director, partner."
                maxLength={80}
                value={member.position}
                error={at(`members.${index}.position`)}
                onChange={(event) => change(index, { position: event.target.value })}
              />
            ) : null}
            <Field
              label="Percent of it that is theirs"
              inputMode="numeric"
              hint={member.acts ? '0 where you hold nothing of it.' : `More than ${TOLD_ABOVE}.`}
              maxLength={3}
              value={String(member.share)}
              error={at(`members.${index}.share`)}
              onChange={(event) => change(index, { share: Number(event.target.value.replace(/\D/g, '')) })}
            />
          </div>
          {member.acts ? null : (
            <Button
              look="link"
              className="mt-2"
              onClick={() => form.set({ members: all.filter((_, place) => place !== index) })}
            >
              Leave {member.name || 'them'} out
            </Button>
          )}
        </fieldset>
      ))}
      {at('members') ? <FieldError>{at('members')}</FieldError> : null}
    </Form>
  );
}
