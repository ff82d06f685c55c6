'use client';
import { FileText, X } from 'lucide-react';
import { useState } from 'react';
import { ALWAYS_IN, type FilePart, PART_TITLES } from '@/core/dispute/payment-file';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { FieldError, TextField } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { upload } from '../kit/send-file';
import { KnownParts } from './known-parts';
import { type Prepared, useAnswer } from './use-answer';

const MOST_FILES = 20;

/** What the business answers: words and papers of its own, what of the known goes along; kept while it is typed, sent once. */
export function AnswerForm({
  disputeId,
  paymentId,
  sum,
  mayAccept,
  prepared,
  parts,
}: {
  disputeId: string;
  paymentId: string;
  sum: string;
  mayAccept: boolean;
  prepared: Prepared;
  parts: readonly FilePart[];
}) {
  const path = `/api/disputes/${disputeId}`;
  const { busy, press } = usePress();
  const { answer, change, keep, keeping, trouble, setTrouble } = useAnswer(disputeId, prepared);
  const [asking, setAsking] = useState<'send' | 'accept' | null>(null);
  const [sending, setSending] = useState(false);

  async function add(file: File) {
    setTrouble('');
    setSending(true);
    const stored = await upload(file, 'attachment', file.name);
    setSending(false);
    if (!stored.ok) return setTrouble(stored.words);
    change({ files: [...answer.files, { id: stored.value.id, name: stored.value.name }] });
  }

  async function go(what: 'send' | 'accept'): Promise<string> {
    if (!(await keep())) return 'What you wrote could not be kept; nothing was sent.';
    const said = await press(`${path}/${what}`, {}, what === 'send' ? 'The answer is sent' : 'The loss is accepted');
    if (said.ok) setAsking(null);
    return troubleOf(said);
  }

  const shown = parts.map((part) =>
    part.key === 'added' ? { ...part, papers: answer.files.map(({ name }) => ({ name })) } : part,
  );
  return (
    <>
      <section className="mt-5" aria-label="Your answer">
        <h2 className="title-section border-b border-ink pb-1">Your answer</h2>
        <TextField
          label="What happened, in your own words"
          maxLength={5000}
          style={{ minHeight: '7lh' }}
          value={answer.words}
          onChange={(event) => change({ words: event.target.value })}
          onBlur={() => void keep()}
        />
        <p className="small text-soft" aria-live="polite">
          {keeping === 'being-kept' ? 'Being kept' : keeping === 'kept' ? 'Kept' : '\u00a0'}
        </p>
        <ul className="mt-2 grid gap-1.5">
          {answer.files.map((file) => (
            <li key={file.id} className="flex items-center gap-2 border-b border-rule pb-1">
              <FileText size={15} strokeWidth={1.5} aria-hidden="true" />
              <a
                className="min-w-0 flex-1 truncate hover:underline"
                href={`/files/own/${file.id}`}
                target="_blank"
                rel="noreferrer"
              >
                {file.name}
              </a>
              <button
                type="button"
                className="grid size-6 place-items-center"
                aria-label={`Without ${file.name}`}
                onClick={() => change({ files: answer.files.filter(({ id }) => id !== file.id) })}
              >
                <X size={13} strokeWidth={1.6} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
        {answer.files.length < MOST_FILES ? (
          <FileDrop
            label={sending ? 'Sending it up' : 'Add a paper'}
            accept=".pdf,.png,.jpg,.jpeg"
            hint="proof of delivery, letters, pictures: PDF, PNG or JPEG, up to 10 MB each"
            onFile={add}
          />
        ) : null}
        {trouble ? <FieldError>{trouble}</FieldError> : null}
      </section>
      <KnownParts
        parts={shown}
        leftOut={answer.leftOut}
        before={(part) =>
          ALWAYS_IN.includes(part.key) || part.key === 'added' ? null : (
            <Check
              aria-label={`${PART_TITLES[part.key]} goes along`}
              checked={!answer.leftOut.includes(part.key)}
              onChange={(event) =>
                change({
                  leftOut: event.target.checked
                    ? answer.leftOut.filter((one) => one !== part.key)
                    : [...answer.leftOut, part.key],
                })
              }
            />
          )
        }
      />
      <div className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Button look="go" busy={busy} onClick={() => setAsking('send')}>
          Send the answer
        </Button>
        <a
          className="link"
          href={`/files/disputes/${disputeId}`}
          target="_blank"
          rel="noreferrer"
          onClick={() => void keep()}
        >
          See it as one PDF
        </a>
        <a className="link" href={`/files/payment-file/${paymentId}`}>
          All papers as a zip
        </a>
        {mayAccept ? (
          <Button look="link" onClick={() => setAsking('accept')}>
            Accept the loss
          </Button>
        ) : null}
      </div>
      <FormDialog
        open={asking === 'send'}
        title="Send the answer"
        about="It goes to the holder’s bank as one file, once: nothing can be added afterwards."
        action="Send it"
        busy={busy}
        onClose={() => setAsking(null)}
        onSure={() => go('send')}
      >
        {answer.words.trim() ? null : <p>You have not written what happened. A few sentences help whoever decides.</p>}
      </FormDialog>
      <FormDialog
        open={asking === 'accept'}
        title="Accept the loss"
        about={`${sum} stays with the holder, and nothing is sent. This cannot be undone.`}
        action="Accept the loss"
        danger
        busy={busy}
        onClose={() => setAsking(null)}
        onSure={() => go('accept')}
      >
        {null}
      </FormDialog>
    </>
  );
}
