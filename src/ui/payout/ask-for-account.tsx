'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';

/** Mails a partner the link to their page, where they give an account and confirm it themselves. */
export function AskForAccount({
  partnerId,
  partner,
  quiet = false,
}: {
  partnerId: string;
  partner: string;
  quiet?: boolean;
}) {
  const { busy, pressed } = usePress({ keyed: true });
  const asked =
    'To pay your part out we need an account of yours. Open your page, write its number, and type in the two small sums that come to it.';
  return (
    <Button
      look={quiet ? 'link' : 'go'}
      busy={busy}
      onClick={() => void pressed(`/api/partners/${partnerId}/link`, { asked }, `${partner} is asked by e-mail`)}
    >
      Ask {partner} for an account
    </Button>
  );
}
