'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ALL_HOOK_KINDS, type HookKind } from '@/core/hook/events';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { ProgramForm } from './program-form';
import { SecretDialog } from './secret-dialog';

/** A program that is told, and the latest that it was; times are written already. */
type ProgramShown = {
  readonly id: string;
  readonly url: string;
  readonly kinds: readonly HookKind[];
  readonly isOn: boolean;
  readonly isSilent: boolean;
  readonly since: string;
  readonly earlier: string;
  readonly deliveries: readonly {
    readonly id: string;
    readonly what: string;
    readonly when: string;
    readonly state: 'waiting' | 'done' | 'given-up';
    readonly words: string;
  }[];
};

const COLOURS = { waiting: 'text-ochre', done: 'text-soft', 'given-up': 'text-brick font-medium' } as const;

function Program({
  program,
  onChange,
  onSecret,
}: {
  program: ProgramShown;
  onChange: () => void;
  onSecret: (secret: string) => void;
}) {
  const { busy, press, pressed } = usePress();
  const [removing, setRemoving] = useState(false);
  const { id, url, kinds, isOn, isSilent, since, earlier, deliveries } = program;
  const path = `/api/programs/${id}`;
  const renew = async () => {
    const answer = await press<string>(`${path}/secret`, {});
    if (answer.ok) onSecret(answer.value);
    else sayTrouble(troubleOf(answer));
  };
  return (
    <section className="mt-7" aria-label={url}>
      <h2 className="name break-all border-b border-ink pb-1.5">{url}</h2>
      <p className="small mt-1.5 text-soft">
        {isOn ? (
          kinds.length === ALL_HOOK_KINDS.length ? (
            'told of everything, '
          ) : (
            `told of ${kinds.length} of ${ALL_HOOK_KINDS.length} things, `
          )
        ) : (
          <b className="font-semibold text-ochre">switched off, </b>
        )}
        {since} {earlier}
      </p>
      {isSilent ? (
        <p className="mt-2 bg-brick-tint px-3 py-2" role="status">
          For three days nothing arrived there. What was given up can be sent again below.
        </p>
      ) : null}
      <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
        <Button look="link" onClick={onChange} aria-label={`Change ${url}`}>
          Change
        </Button>
        <Button look="link" disabled={busy} onClick={() => void pressed(`${path}/test`, {}, 'A test is on its way')}>
          Send a test
        </Button>
        <Button look="link" disabled={busy} onClick={() => void renew()}>
          New secret
        </Button>
        {removing ? (
          <>
            <Button look="link" disabled={busy} onClick={() => void pressed(path, {}, 'It is told no more', 'DELETE')}>
              Yes, tell it no more
            </Button>
            <Button look="link" onClick={() => setRemoving(false)}>
              Leave it
            </Button>
          </>
        ) : (
          <Button look="link" onClick={() => setRemoving(true)}>
            Remove
          </Button>
        )}
      </div>
      {deliveries.length > 0 ? (
        <ul className="mt-3 max-h-[360px] overflow-auto border-t border-rule" aria-label="What it was told">
          {deliveries.map(({ id: deliveryId, what, when, state, words }) => (
            <li key={deliveryId} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
              <span className="min-w-[200px] flex-1">
                {what}
                <span className="small block text-soft">{when}</span>
              </span>
              <span className={`small min-w-[200px] flex-1 ${COLOURS[state]}`}>{words}</span>
              <Button
                look="small-link"
                disabled={busy}
                onClick={() => void pressed(`/api/program-deliveries/${deliveryId}`, {}, 'It is sent once more')}
              >
                Send again
              </Button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-3 text-soft">It was told of nothing yet.</p>
      )}
    </section>
  );
}

/** Programs that are told of what happens here, and what each was told. */
export function ProgramsDesk({ programs }: { programs: readonly ProgramShown[] }) {
  const router = useRouter();
  const [open, setOpen] = useState<ProgramShown | 'new' | null>(null);
  const [secret, setSecret] = useState('');
  const isNew = open === 'new';
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-4">
        <h1 className="title-screen flex-1">Other programs</h1>
        <Button look="go" onClick={() => setOpen('new')}>
          Tell a program
        </Button>
      </div>
      <p className="document mt-1">
        A shop, a book-keeping, a board in the workshop: they are told as soon as something happens, and again for three
        days where they do not answer.
      </p>
      {programs.map((program) => (
        <Program key={program.id} program={program} onChange={() => setOpen(program)} onSecret={setSecret} />
      ))}
      {open ? (
        <Dialog
          open
          title={isNew ? 'Tell a program' : 'Change what it is told'}
          onOpenChange={(stays) => stays || setOpen(null)}
        >
          <ProgramForm
            id={isNew ? null : open.id}
            start={isNew ? { url: '', kinds: ALL_HOOK_KINDS, isOn: true } : open}
            onDone={(made) => {
              setOpen(null);
              setSecret(made);
              router.refresh();
            }}
          />
        </Dialog>
      ) : null}
      {secret ? (
        <SecretDialog
          title="Its secret"
          about="By this the program knows that it is told by you. It is shown this once; a new one can be made at any time."
          secret={secret}
          onClose={() => setSecret('')}
        >
          Each message carries X-Event-Id, X-Event-Time and X-Event-Signature: HMAC-SHA-256 in hexadecimal over the
          time, a dot and the body. The same id may come twice.
        </SecretDialog>
      ) : null}
    </>
  );
}
