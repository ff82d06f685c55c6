'use client';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';

/** Asks whether a draft is to be thrown away. */
export function ThrowAway({ open, onClose, onSure }: { open: boolean; onClose: () => void; onSure: () => void }) {
  return (
    <Dialog
      open={open}
      onOpenChange={(next) => !next && onClose()}
      title="Discard this draft?"
      about="It has no number yet, so none will be missing."
    >
      <div className="flex justify-end gap-3">
        <Button onClick={onClose}>Cancel</Button>
        <Button look="sure" onClick={onSure}>
          Discard
        </Button>
      </div>
    </Dialog>
  );
}
