'use client';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';

/** A key for an authenticator app, as the server made it. */
export type AppKey = { readonly seal: string; readonly typed: string; readonly picture: string };

/** Sets an authenticator app up: its camera reads the key, and a code shows that it has it. */
export function AppDialog({
  made,
  onAdded,
  onClose,
}: {
  made: AppKey;
  /** @param codes recovery codes, where it is the first step */
  onAdded: (codes: readonly string[]) => void;
  onClose: () => void;
}) {
  const form = useTyped({
    start: { seal: made.seal, code: '' },
    shape: () => import('@/input/step-input').then(({ AppInput }) => AppInput),
    send: (body) => send<readonly string[]>('POST', '/api/steps/app', body),
    done: onAdded,
  });
  return (
    <Dialog
      open
      title="An authenticator app"
      about="Read this with the app on your phone, then type the six figures that it shows."
      onOpenChange={(open) => open || onClose()}
    >
      <div className="flex flex-wrap items-center gap-5">
        {/* biome-ignore lint/performance/noImgElement: drawn on the server, for this once */}
        <img
          src={`data:image/svg+xml;utf8,${encodeURIComponent(made.picture)}`}
          alt="Code for the app’s camera"
          width={190}
          height={190}
          className="flex-none"
        />
        <div className="min-w-0 flex-1 basis-[180px]">
          <p className="label">Or type this key there</p>
          <p className="private select-all break-words font-serif text-[17px]/7">{made.typed}</p>
        </div>
      </div>
      <div className="mt-5">
        <Form
          of={form}
          legend="An authenticator app"
          actions={
            <Button type="submit" look="go" busy={form.busy} busyWords="One moment" className="justify-self-start">
              Set it up
            </Button>
          }
        >
          <Field
            label="Six figures of the app"
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={12}
            value={form.values.code}
            error={form.at('code')}
            onChange={(event) => form.set({ code: event.target.value })}
          />
        </Form>
      </div>
    </Dialog>
  );
}
