'use client';
import { Ellipsis } from 'lucide-react';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import type { OfferState, Placement } from '@/core/offer/offer';
import { shortAddressOf } from '@/core/offer/short-address';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { BeginOffer } from './begin-offer';
import { PLACEMENT_WORDS } from './placement-words';

type Looked = { state: 'free' | 'taken' | 'wrong'; instead: readonly string[] };

const LOOK_PAUSE_MS = 250;

/** A short address of the offer's own: looked at while it is typed, with others where it is taken. */
function AddressDialog({
  id,
  name,
  address,
  onClose,
}: {
  id: string;
  name: string;
  address: string;
  onClose: () => void;
}) {
  const router = useRouter();
  const [wanted, setWanted] = useState(address || shortAddressOf(name));
  const [looked, setLooked] = useState<Looked | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    setLooked(null);
    if (!wanted) return;
    const asked = new AbortController();
    const timer = setTimeout(async () => {
      const path = `/api/offers/${id}/address?address=${encodeURIComponent(wanted)}`;
      const answer = await send<Looked>('GET', path, undefined, { signal: asked.signal });
      if (answer.ok && !asked.signal.aborted) setLooked(answer.value);
    }, LOOK_PAUSE_MS);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [wanted, id]);
  return (
    <FormDialog
      title="Its own address"
      about={`Short, to be said and written: small letters, digits and single strokes. Empty for the long one.${address ? ` The address it has now, ${address}, goes on leading here: it may be in print.` : ''}`}
      action="Save address"
      busy={busy}
      disabled={wanted !== '' && looked?.state !== 'free'}
      onClose={onClose}
      onSure={async () => {
        setBusy(true);
        const answer = await send('PUT', `/api/offers/${id}/address`, { address: wanted });
        setBusy(false);
        if (!answer.ok) return answer.words;
        onClose();
        say(wanted ? `It is found under ${wanted} now` : 'It has its long address again');
        router.refresh();
        return '';
      }}
    >
      <Field
        label="Address"
        value={wanted}
        maxLength={48}
        autoComplete="off"
        spellCheck={false}
        error={
          looked?.state === 'wrong'
            ? '3 to 48 small letters and digits, with single strokes between them.'
            : looked?.state === 'taken'
              ? 'Somebody has it already.'
              : undefined
        }
        hint={looked?.state === 'free' ? 'It is free.' : undefined}
        onChange={(event) => setWanted(event.target.value.toLowerCase().replace(/\s/g, '-'))}
      />
      {looked && looked.instead.length > 0 ? (
        <p className="flex flex-wrap gap-x-4 gap-y-1">
          Free are:
          {looked.instead.map((one) => (
            <Button key={one} look="link" onClick={() => setWanted(one)}>
              {one}
            </Button>
          ))}
        </p>
      ) : null}
    </FormDialog>
  );
}

/** What can be done with an offer: its link passed on, itself changed, paused, copied, deleted. */
export function OfferActions({
  id,
  placement,
  name,
  link,
  address,
  state,
  placed,
  used,
  mayAsk,
  house,
}: {
  id: string;
  placement: Placement;
  name: string;
  link: string;
  address: string;
  state: OfferState;
  placed: boolean;
  used: boolean;
  mayAsk: boolean;
  house: string;
}) {
  const router = useRouter();
  const [shown, setShown] = useState<'' | 'address' | 'qr' | 'close' | 'delete'>('');
  const [busy, setBusy] = useState(false);
  const { one, path } = PLACEMENT_WORDS[placement];

  async function to(next: OfferState, words: string): Promise<string> {
    setBusy(true);
    const answer = await send('PUT', `/api/offers/${id}/state`, { state: next });
    setBusy(false);
    if (!answer.ok) {
      sayTrouble(answer.words);
      return answer.words;
    }
    setShown('');
    say(words);
    router.refresh();
    return '';
  }

  async function copy() {
    try {
      await navigator.clipboard.writeText(link);
      say('The link is copied');
    } catch {
      sayTrouble('This browser does not let the link be copied. Mark it and copy it by hand.');
    }
  }

  return (
    <div className="mt-3">
      {placed ? (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-y border-rule py-2.5">
          <a
            className="private min-w-0 flex-1 truncate font-serif text-[16px] underline decoration-edge underline-offset-3"
            href={link}
            target="_blank"
            rel="noreferrer"
          >
            {link.replace(/^https?:\/\//, '')}
          </a>
          <Button look={state === 'open' ? 'go' : 'plain'} onClick={() => void copy()}>
            Copy link
          </Button>
          <Button look="link" onClick={() => setShown('qr')}>
            QR code
          </Button>
          <a
            className="link"
            href={`mailto:?subject=${encodeURIComponent(`${house}: ${name}`)}&body=${encodeURIComponent(link)}`}
          >
            Mail it
          </a>
        </div>
      ) : null}
      {mayAsk ? (
        <div className="mt-2.5 flex flex-wrap items-center gap-x-5 gap-y-2">
          {placement === 'page' ? (
            <Link className="link" href={`/ask/design/${id}` as Route}>
              Design the page
            </Link>
          ) : null}
          <Link className="link" href={`/ask/offer/${id}` as Route}>
            {placement === 'page' ? 'Edit the offer' : 'Edit'}
          </Link>
          {placed ? (
            <Button look="link" onClick={() => setShown('address')}>
              {address ? 'Edit the address' : 'Give it a short address'}
            </Button>
          ) : null}
          <a className="link" href={`/proof/offer/${id}/page`} target="_blank" rel="noreferrer">
            Rehearse
          </a>
          <BeginOffer placement={placement} words="Copy" from={id} />
          {placed && state === 'open' ? (
            <Button look="link" disabled={busy} onClick={() => void to('paused', 'It is paused')}>
              Pause
            </Button>
          ) : null}
          {placed && state !== 'open' ? (
            <Button look="link" disabled={busy} onClick={() => void to('open', 'It is open again')}>
              Open again
            </Button>
          ) : null}
          <DropdownMenu.Root>
            <DropdownMenu.Trigger className="grid size-8 place-items-center" aria-label="More">
              <Ellipsis size={18} strokeWidth={1.5} aria-hidden="true" />
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
                {placed && state !== 'closed' ? (
                  <DropdownMenu.Item className="menu-item" onSelect={() => setShown('close')}>
                    Close it
                  </DropdownMenu.Item>
                ) : null}
                <DropdownMenu.Item className="menu-item" disabled={used} onSelect={() => setShown('delete')}>
                  {used ? 'Delete (it has been used)' : 'Delete'}
                </DropdownMenu.Item>
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        </div>
      ) : null}
      {shown === 'address' ? (
        <AddressDialog id={id} name={name} address={address} onClose={() => setShown('')} />
      ) : null}
      <Dialog open={shown === 'qr'} onOpenChange={(open) => setShown(open ? 'qr' : '')} title="QR code" about={link}>
        {/* biome-ignore lint/performance/noImgElement: a drawing made for this link */}
        <img src={`/files/offer-qr/${id}`} alt={`QR code of ${link}`} className="mx-auto size-[280px]" />
        <div className="mt-3 flex justify-center gap-5">
          <a className="link" href={`/files/offer-qr/${id}?keep=yes`}>
            Save as SVG
          </a>
          <a className="link" href={`/files/offer-qr/${id}?as=png&keep=yes`}>
            Save as PNG
          </a>
        </div>
      </Dialog>
      <FormDialog
        open={shown === 'close'}
        title={`Close this ${one}`}
        about="Nobody can pay it any more, and its page says so. Payments that are on their way are still taken. You can open it again."
        action="Close it"
        busy={busy}
        danger
        onClose={() => setShown('')}
        onSure={() => to('closed', 'It is closed')}
      >
        {null}
      </FormDialog>
      <FormDialog
        open={shown === 'delete'}
        title={`Delete this ${one}`}
        about="Nobody has used it. It cannot be brought back."
        action="Delete it"
        busy={busy}
        danger
        onClose={() => setShown('')}
        onSure={async () => {
          setBusy(true);
          const answer = await send('DELETE', `/api/offers/${id}`);
          setBusy(false);
          if (!answer.ok) return answer.words;
          say(`${name} is deleted`);
          router.push(path);
          router.refresh();
          return '';
        }}
      >
        {null}
      </FormDialog>
    </div>
  );
}
