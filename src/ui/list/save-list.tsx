'use client';
import { useRouter } from 'next/navigation';
import { NameDialog } from '../composer/name-dialog';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';

/** Keeps what is asked of a list under a name. @param path the address that keeps it */
export function SaveListDialog({
  open,
  path,
  asked,
  onClose,
}: {
  open: boolean;
  path: string;
  asked: object;
  onClose: () => void;
}) {
  const router = useRouter();
  return (
    <NameDialog
      open={open}
      title="Save this list"
      about="What is asked now is saved under a name, for everybody at this desk."
      label="Name"
      action="Save list"
      onClose={onClose}
      onName={async (name) => {
        const answer = await send('POST', path, { name, asked });
        if (!answer.ok) return troubleOf(answer);
        onClose();
        say(`“${name}” is saved`);
        router.refresh();
        return '';
      }}
    />
  );
}
