'use client';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { say, sayTrouble } from '../kit/toasts';

const textOf = (codes: readonly string[]): string =>
  `Recovery codes for Dahlia. Each is good once.\n\n${codes.join('\n')}\n`;

/** Recovery codes, shown this once. */
export function RecoveryCodes({ codes, onClose }: { codes: readonly string[]; onClose: () => void }) {
  const keep = () => {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([textOf(codes)], { type: 'text/plain' }));
    link.download = 'dahlia-recovery-codes.txt';
    link.click();
    URL.revokeObjectURL(link.href);
  };
  const copy = () =>
    void navigator.clipboard.writeText(textOf(codes)).then(
      () => say('The codes are copied'),
      () => sayTrouble('They could not be copied. Mark them, or keep them as a file.'),
    );
  return (
    <Dialog
      open
      title="Ten recovery codes"
      about="Each lets you in once when app and passkeys are not at hand. They are shown this once: print them, or keep them where you keep passwords."
      onOpenChange={(open) => open || onClose()}
    >
      <ol
        className="grid grid-cols-2 gap-x-8 border-y border-rule py-3 font-serif text-[18px]/8"
        aria-label="Recovery codes"
      >
        {codes.map((code) => (
          <li key={code} className="private select-all">
            {code}
          </li>
        ))}
      </ol>
      <div className="mt-5 flex flex-wrap items-center gap-4">
        <Button look="go" onClick={onClose}>
          I have kept them
        </Button>
        <Button look="link" onClick={copy}>
          Copy
        </Button>
        <Button look="link" onClick={keep}>
          Keep as a file
        </Button>
      </div>
    </Dialog>
  );
}
