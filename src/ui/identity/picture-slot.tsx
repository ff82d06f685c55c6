'use client';
import { useRouter } from 'next/navigation';
import { useId, useState } from 'react';
import { SIDE_WORDS, type Side } from '@/core/identity/identity';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { troubleOf } from '../kit/send';
import { sendFile } from '../kit/send-file';
import { CameraDialog } from './camera-dialog';

/** One picture: from the camera, or a file; looked at again, or taken anew. */
export function PictureSlot({
  memberId,
  member,
  side,
  isThere,
  isNeeded,
}: {
  memberId: string;
  member: string;
  side: Side;
  isThere: boolean;
  isNeeded: boolean;
}) {
  const router = useRouter();
  const id = useId();
  const [busy, setBusy] = useState(false);
  const [camera, setCamera] = useState(false);
  const [trouble, setTrouble] = useState('');
  const words = `${SIDE_WORDS[side]} of ${member}`;
  const give = async (picture: Blob) => {
    setCamera(false);
    setBusy(true);
    const answer = await sendFile(`/api/identity/pictures?memberId=${memberId}&side=${side}`, picture);
    setBusy(false);
    setTrouble(troubleOf(answer));
    if (answer.ok) router.refresh();
  };
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-rule py-2">
      <span className="min-w-[180px] flex-1">
        {SIDE_WORDS[side]}
        <span className={`small block ${isThere ? 'font-medium text-leaf' : isNeeded ? 'text-ochre' : 'text-soft'}`}>
          {isThere ? 'there' : isNeeded ? 'still missing' : 'where it has one'}
        </span>
      </span>
      {isThere ? (
        <a
          href={`/files/identity/${memberId}/${side}`}
          target="_blank"
          rel="noreferrer"
          className="link"
          aria-label={`Look at ${words}`}
        >
          Look
        </a>
      ) : null}
      <Button look="link" disabled={busy} aria-label={`Camera for ${words}`} onClick={() => setCamera(true)}>
        Camera
      </Button>
      <label htmlFor={id} className="link cursor-pointer focus-within:outline-2">
        {busy ? 'Sending it up' : isThere ? 'Another file' : 'File'}
        <input
          id={id}
          type="file"
          accept="image/png,image/jpeg,image/webp"
          capture={side === 'live' ? 'user' : 'environment'}
          aria-label={`File for ${words}`}
          className="sr-only"
          disabled={busy}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void give(file);
          }}
        />
      </label>
      {trouble ? (
        <div className="w-full">
          <FieldError>{trouble}</FieldError>
        </div>
      ) : null}
      {camera ? (
        <CameraDialog
          title={words}
          facing={side === 'live' ? 'user' : 'environment'}
          onTaken={(picture) => void give(picture)}
          onClose={() => setCamera(false)}
        />
      ) : null}
    </li>
  );
}
