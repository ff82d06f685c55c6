'use client';
import { Dialog } from '../kit/dialog';
import type { Action } from './actions';

/** Every key that acts from anywhere, by what it does. */
export function KeySheet({
  open,
  actions,
  onClose,
}: {
  open: boolean;
  actions: readonly Action[];
  onClose: () => void;
}) {
  const keyed = actions.filter(({ key }) => key);
  return (
    <Dialog
      open={open}
      onOpenChange={(next) => !next && onClose()}
      title="Keys"
      about="They act from anywhere, except while you type."
    >
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        {(['New', 'Go to', 'This desk'] as const).map((name) => (
          <section key={name} aria-label={name} className={name === 'New' ? 'sm:row-span-2' : ''}>
            <h3 className="border-b border-ink pb-1 text-[12.5px] font-semibold">{name}</h3>
            <dl>
              {keyed
                .filter(({ group }) => group === name)
                .map(({ words, key }) => (
                  <div key={words} className="flex items-center justify-between gap-4 border-b border-rule py-1">
                    <dt>{words}</dt>
                    <dd className="flex flex-none gap-1">
                      {key?.split(' ').map((one) => (
                        <kbd key={one} className="key">
                          {one}
                        </kbd>
                      ))}
                    </dd>
                  </div>
                ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
