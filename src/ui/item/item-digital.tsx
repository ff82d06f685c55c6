'use client';
import { useRouter } from 'next/navigation';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { Field, TextField } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { upload } from '../kit/send-file';
import { say, sayTrouble } from '../kit/toasts';

export type ItemDigitalShown = {
  readonly fileId: string | null;
  readonly fileName: string;
  readonly words: string;
  readonly mostDownloads: number | null;
  readonly days: number | null;
};

type Values = { fileId: string | null; fileName: string; words: string; mostDownloads: string; days: string };

const rules = () => import('@/input/counter-input').then(({ ItemDigitalInput }) => ItemDigitalInput);

const limit = (typed: string): number | null => (typed.trim() === '' ? null : Number(typed));

/** What whoever buys it gets once it is paid: a file or a text, with how often and how long. */
export function ItemDigital({
  itemId,
  digital,
  mayFile,
}: {
  itemId: string;
  digital: ItemDigitalShown | null;
  mayFile: boolean;
}) {
  const router = useRouter();
  const form = useTyped<Values>({
    start: {
      fileId: digital?.fileId ?? null,
      fileName: digital?.fileName ?? '',
      words: digital?.words ?? '',
      mostDownloads: digital ? String(digital.mostDownloads ?? '') : '5',
      days: digital ? String(digital.days ?? '') : '60',
    },
    keepAs: `item-digital:${itemId}`,
    shape: rules,
    body: ({ fileId, words, mostDownloads, days }) => ({
      ...{ fileId, words },
      mostDownloads: limit(mostDownloads),
      days: limit(days),
    }),
    send: (body) => send('PUT', `/api/items/${itemId}/digital`, body),
    done: () => {
      say('What buyers get is saved');
      router.refresh();
    },
  });
  const { values, set, at } = form;
  return (
    <article className="sheet mt-5 max-w-[760px] px-7 py-5" aria-label="What buyers get">
      <Form of={form} legend="What buyers get">
        <div className="flex flex-wrap items-baseline gap-4">
          <h2 className="title-section min-w-0 flex-1">What buyers get once it is paid</h2>
          <Button type="submit" look={form.changed ? 'go' : 'plain'} busy={form.busy} busyWords="Saving">
            Save what they get
          </Button>
        </div>
        {values.fileId ? (
          <p>
            <span className="document break-words">{values.fileName}</span>{' '}
            <Button look="small-link" onClick={() => set({ fileId: null, fileName: '' })}>
              Without a file
            </Button>
          </p>
        ) : mayFile ? (
          <FileDrop
            label="Choose the file"
            accept=".pdf,.png,.jpg,.mp3,.m4a,.ogg,.flac,.wav,.mp4,.epub,.zip,.docx,.xlsx"
            hint="a document, a recording, a book or a zip, up to 10 MB"
            onFile={async (file) => {
              const answer = await upload(file, 'digital', file.name);
              if (answer.ok) set({ fileId: answer.value.id, fileName: answer.value.name });
              else sayTrouble(answer.words);
            }}
          />
        ) : null}
        <TextField
          label="A text, such as a code or a link"
          hint="It stands in their mail and on their page."
          value={values.words}
          error={at('words')}
          maxLength={4000}
          onChange={(event) => set({ words: event.target.value })}
        />
        <div className="grid gap-4 sm:grid-cols-2">
          <Field
            label="Downloads of each bought"
            hint="Empty for no limit."
            inputMode="numeric"
            value={values.mostDownloads}
            error={at('mostDownloads')}
            onChange={(event) => set({ mostDownloads: event.target.value })}
          />
          <Field
            label="Days from the payment on"
            hint="Empty for no limit."
            inputMode="numeric"
            value={values.days}
            error={at('days')}
            onChange={(event) => set({ days: event.target.value })}
          />
        </div>
        <p className="small text-soft">What was given already stays as it was given.</p>
      </Form>
    </article>
  );
}
