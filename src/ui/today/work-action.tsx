'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import { WordsDialog } from '../invoice/sheet-dialogs';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { SendAnew } from './send-anew';
import { useTogether } from './use-together';
import type { WorkAct } from './work-row';

type Look = 'go' | 'plain' | 'small-link';

/** How many things an act is about. */
const countOf = (act: WorkAct): number =>
  act.do === 'charge' ? act.chargeIds.length : act.do === 'remind' ? act.invoiceIds.length + act.planIds.length : 1;

/** What a button says that does it. */
export function actWords(act: WorkAct): string {
  const count = countOf(act);
  switch (act.do) {
    case 'open':
      return act.words;
    case 'charge':
      return count > 1 ? `Charge ${count} again` : 'Charge again';
    case 'card':
      return 'Send a card link';
    case 'remind':
      return count > 1 ? `Remind of ${count}` : 'Remind';
    case 'answer':
      return 'Answer';
    case 'decide':
      return 'Decide';
    case 'resend':
      return 'Send again';
    case 'try':
      return 'Try again';
  }
}

function AnswerAction({ act, look }: { act: Extract<WorkAct, { do: 'answer' }>; look: Look }) {
  const { busy, press } = usePress();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button look={look} onClick={() => setOpen(true)}>
        Answer
      </Button>
      <WordsDialog
        open={open}
        title="Answer by e-mail"
        about={`“${act.question}”`}
        label="Your answer"
        first=""
        action="Send answer"
        busy={busy}
        onClose={() => setOpen(false)}
        onWords={async (text) => {
          const answer = await press(`/api/questions/${act.questionId}`, { text }, 'The answer is on its way');
          if (!answer.ok) return answer.words;
          setOpen(false);
          return '';
        }}
      />
    </>
  );
}

/** Missed charges are charged or left out: what that charges stands on the buttons. */
function DecideAction({ act, look }: { act: Extract<WorkAct, { do: 'decide' }>; look: Look }) {
  const { busy, pressed } = usePress();
  const decide = (which: 'all' | 'last' | 'none', done: string) =>
    void pressed(`/api/plans/${act.planId}`, { action: 'missed', which }, done);
  return (
    <span className="grid gap-1.5">
      <Button look={look} disabled={busy} onClick={() => decide('all', 'Being charged')}>
        Charge {act.count === 1 ? 'it' : 'all'}
      </Button>
      <span className="flex justify-between gap-3">
        {act.count > 1 ? (
          <Button look="small-link" disabled={busy} onClick={() => decide('last', 'The last one is being charged')}>
            Only the last
          </Button>
        ) : null}
        <Button look="small-link" disabled={busy} onClick={() => decide('none', 'Left out')}>
          Leave out
        </Button>
      </span>
    </span>
  );
}

/** The action of a row of Today, done from the row itself. */
export function WorkAction({ act, look }: { act: WorkAct; look: Look }) {
  const { busy, pressed } = usePress();
  const { busy: doing, doAll } = useTogether();
  switch (act.do) {
    case 'open':
      return (
        <Link
          href={act.href as Route}
          className={look === 'small-link' ? 'link link-small' : `btn ${look === 'go' ? 'btn-go' : ''}`}
        >
          {act.words}
        </Link>
      );
    case 'answer':
      return <AnswerAction act={act} look={look} />;
    case 'decide':
      return <DecideAction act={act} look={look} />;
    case 'resend':
      return <SendAnew act={act} look={look} />;
    case 'try':
      return (
        <Button
          look={look}
          busy={busy}
          busyWords="One moment"
          onClick={() => void pressed('/api/stuck', { key: act.jobKey }, 'It is tried again now')}
        >
          Try again
        </Button>
      );
    default:
      return (
        <Button look={look} busy={doing} busyWords="One moment" onClick={() => void doAll(act)}>
          {actWords(act)}
        </Button>
      );
  }
}
