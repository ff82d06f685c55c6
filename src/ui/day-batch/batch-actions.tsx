'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** What can be done with a closed day: comparing once more, and noting that its differences were looked into. */
export function BatchActions({ day, differs }: { day: string; differs: boolean }) {
  const { busy, press, pressed } = usePress();
  const [shown, setShown] = useState(false);
  const [words, setWords] = useState('');
  return (
    <>
      <Button
        look="link"
        disabled={busy}
        onClick={() => pressed(`/api/day-batches/${day}/compare`, {}, 'Compared with the processor’s book')}
      >
        Compare again
      </Button>
      {differs ? (
        <Button look="link" onClick={() => setShown(true)}>
          I have looked into it
        </Button>
      ) : null}
      <FormDialog
        open={shown}
        title="Looked into"
        about="The day leaves Today’s queue. Your name and what you found stay with it."
        action="Note it"
        busy={busy}
        disabled={!words.trim()}
        onClose={() => setShown(false)}
        onSure={async () => {
          const answer = await press(`/api/day-batches/${day}/settle`, { words }, 'Noted');
          if (answer.ok) setShown(false);
          return troubleOf(answer);
        }}
      >
        <Field
          label="What was found"
          value={words}
          maxLength={300}
          onChange={(event) => setWords(event.target.value)}
        />
      </FormDialog>
    </>
  );
}
