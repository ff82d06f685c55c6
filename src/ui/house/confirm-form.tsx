'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { LinkPress } from './link-press';

/** Confirms an address by the link of its mail. */
export const ConfirmByLink = ({ token }: { token: string }) => (
  <LinkPress
    path="/api/confirm/link"
    token={token}
    action="Confirm the address"
    busyWords="Confirming it"
    done={() => (
      <>
        <p className="document">The address is confirmed: what you write can be sent.</p>
        <Button look="go" className="mt-4" onClick={() => location.assign('/today')}>
          To the desk
        </Button>
      </>
    )}
  />
);

const FIGURES = 'six-figures';

/** Goes to where the six figures are typed. */
export const toFigures = (): void => document.getElementById(FIGURES)?.focus();

/** The six figures of the mail, typed at the desk; sent again, or to a corrected address. */
export function ConfirmHere({ email, sent }: { email: string; sent: string }) {
  const { busy, press } = usePress();
  const [figures, setFigures] = useState('');
  const [address, setAddress] = useState<string | null>(null);
  const [trouble, setTrouble] = useState('');
  const told = (answer: Parameters<typeof troubleOf>[0]) => {
    setTrouble(troubleOf(answer));
    return answer.ok;
  };
  const confirm = async () =>
    told(await press('/api/confirm/figures', { figures }, 'Your address is confirmed: sending is open')) &&
    setFigures('');
  const again = async () => told(await press('/api/confirm/again', {}, 'New figures are on their way'));
  const correct = async () =>
    told(await press('/api/confirm/address', { email: address }, 'New figures are on their way', 'PUT')) &&
    setAddress(null);

  return (
    <div className="mt-2">
      <p>
        <b className="font-semibold">Next.</b> Six figures went to <span className="private">{email}</span>
        {sent ? ` at ${sent}` : ''}.
      </p>
      {address === null ? (
        <form
          noValidate
          className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2"
          onSubmit={(event) => {
            event.preventDefault();
            void confirm();
          }}
        >
          <input
            id={FIGURES}
            aria-label="Six figures"
            placeholder="Six figures"
            className="input !w-[148px]"
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={12}
            value={figures}
            aria-invalid={trouble ? true : undefined}
            onChange={(event) => setFigures(event.target.value)}
          />
          <Button type="submit" look="go" busy={busy}>
            Confirm address
          </Button>
          <span className="flex gap-3">
            <Button look="small-link" disabled={busy} onClick={() => void again()}>
              Send again
            </Button>
            <Button look="small-link" opens disabled={busy} onClick={() => setAddress(email)}>
              Another address
            </Button>
          </span>
        </form>
      ) : (
        <form
          noValidate
          className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-2"
          onSubmit={(event) => {
            event.preventDefault();
            void correct();
          }}
        >
          <input
            type="email"
            aria-label="E-mail address"
            className="input !w-[240px]"
            autoComplete="username"
            maxLength={254}
            value={address}
            aria-invalid={trouble ? true : undefined}
            onChange={(event) => setAddress(event.target.value)}
          />
          <Button type="submit" look="go" busy={busy}>
            Send figures there
          </Button>
          <Button look="small-link" onClick={() => setAddress(null)}>
            Leave it
          </Button>
        </form>
      )}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}
