'use client';
import { LinkPress } from '../house/link-press';

/** Says that every second step is lost. */
export const LostForm = ({ token }: { token: string }) => (
  <LinkPress
    path="/api/lost"
    token={token}
    action="They are all lost"
    done={() => (
      <p className="document">
        The wait has begun; a mail says until when. Whichever of them turns up meanwhile still signs you in, and ends
        it.
      </p>
    )}
  />
);
