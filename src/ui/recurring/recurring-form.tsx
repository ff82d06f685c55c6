'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readSchedule, type TypedSchedule } from '@/core/schedule/typed';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { Segment } from '../kit/segment';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import { ComingDates } from '../schedule/coming-dates';
import { ScheduleFields } from '../schedule/schedule-fields';

type RecurringTyped = TypedSchedule & { readonly name: string; readonly makes: 'draft' | 'send' };

/** Lets an invoice come again: its name, its dates, and whether it is sent or waits as a draft. */
export function RecurringForm({
  from,
  id,
  first,
  firstName,
  firstMakes,
  files = 0,
  locale,
  onDone,
}: {
  /** The invoice that comes again, for a new repeat. */
  from?: string;
  /** The repeat that is changed. */
  id?: string;
  first: TypedSchedule;
  firstName: string;
  firstMakes: 'draft' | 'send';
  /** How many files could come along. */
  files?: number;
  locale: string;
  onDone?: () => void;
}) {
  const router = useRouter();
  const [withFiles, setWithFiles] = useState(false);
  const form = useTyped<RecurringTyped, { id: string }>({
    start: { ...first, name: firstName, makes: firstMakes },
    send: async (_, { name, makes, ...schedule }) => {
      const read = readSchedule(schedule);
      if ('trouble' in read)
        return {
          ok: false,
          code: 'unreadable',
          words: read.trouble,
          fields: [{ field: read.field, words: read.trouble }],
        };
      const plan = { name, makes, schedule: read.schedule };
      return id
        ? send('PUT', `/api/recurring/${id}`, plan)
        : send('POST', '/api/recurring', { ...plan, invoiceId: from, withFiles });
    },
    done: (kept) => {
      say(id ? 'It is changed from the next one on' : 'It recurs by itself from now on');
      if (onDone) onDone();
      else router.push(`/ask/recurring/${kept.id}` as Route);
      router.refresh();
    },
  });
  const { values, set, at, troubles } = form;
  return (
    <Form
      of={form}
      legend="What recurs"
      className="grid gap-5"
      actions={
        <div className="flex justify-end gap-3">
          {onDone ? <Button onClick={onDone}>Cancel</Button> : null}
          <Button type="submit" look="go" busy={form.busy} disabled={!values.name.trim()} busyWords="Saving">
            {id ? 'Save from the next one on' : 'Make it recurring'}
          </Button>
        </div>
      }
    >
      <Field
        label="Name"
        maxLength={80}
        value={values.name}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <div className="grid gap-6 sm:grid-cols-[1fr_260px]">
        <ScheduleFields typed={values} troubles={troubles} onChange={set} />
        <ComingDates typed={values} locale={locale} />
      </div>
      <div>
        <Segment
          label="On each of these days"
          value={values.makes}
          choices={[
            ['send', 'it is sent'],
            ['draft', 'a draft waits for you'],
          ]}
          onChoose={(makes) => set({ makes })}
        />
        {files > 0 ? (
          <div className="mt-2">
            <TickField
              label={files === 1 ? 'With its file, each time' : `With its ${files} files, each time`}
              checked={withFiles}
              onChange={(event) => setWithFiles(event.target.checked)}
            />
          </div>
        ) : null}
        <p className="small mt-1.5 text-soft">
          {'{month}'} and {'{year}'} in its texts are filled in each time.
        </p>
      </div>
    </Form>
  );
}
