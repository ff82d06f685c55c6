'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';

/** Everything of the business as one file, after it was shown once more who takes it. @param last when it was last taken; empty for never */
export function TakeAlong({ last }: { last: string }) {
  const { busy, press } = usePress();
  const take = async () => {
    const answer = await press('/api/everything', {});
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    location.assign('/files/everything');
    say('The file is being written');
  };
  return (
    <>
      <p className="document pt-3">
        One archive: every row as JSON, every invoice, credit note and receipt as PDF, every file that was handed in.
        Passwords, keys and links are not in it. {last ? `Last taken on ${last}.` : 'It was never taken yet.'}
      </p>
      <Button className="mt-3" busy={busy} busyWords="One moment" onClick={() => void take()}>
        Take everything along
      </Button>
    </>
  );
}
