'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';

/** Another address for the private calendar, where the old one has got into wrong hands. */
export function NewFeedAddress() {
  const { busy, press } = usePress();
  const [asked, setAsked] = useState(false);
  return (
    <>
      <Button look="link" onClick={() => setAsked(true)}>
        New calendar address
      </Button>
      <FormDialog
        open={asked}
        title="A new calendar address"
        about="The old address shows nothing any more. Every calendar program that has it must be given the new one."
        action="Make a new address"
        busy={busy}
        danger
        onClose={() => setAsked(false)}
        onSure={async () => {
          const answer = await press('/api/upcoming/feed', {}, 'The old address is void; copy the new one');
          if (answer.ok) setAsked(false);
          return troubleOf(answer);
        }}
      >
        {null}
      </FormDialog>
    </>
  );
}
