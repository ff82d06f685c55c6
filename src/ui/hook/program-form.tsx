'use client';
import { ALL_HOOK_KINDS, HOOK_KINDS, type HookKind } from '@/core/hook/events';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { Field, FieldError } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { type Answer, send } from '../kit/send';

/** What a program is told of, and where. */
export type ProgramTyped = { readonly url: string; readonly kinds: readonly HookKind[]; readonly isOn: boolean };

/** A program that is told; with `id` one that is there already. */
export function ProgramForm({
  id,
  start,
  onDone,
}: {
  id: string | null;
  start: ProgramTyped;
  /** @param secret of a new one, told this once; empty for one that is there already */
  onDone: (secret: string) => void;
}) {
  const form = useTyped<ProgramTyped, { secret?: string } | null>({
    start,
    shape: async () => {
      const { ChangedHookInput, HookInput } = await import('@/input/hook-input');
      return id ? ChangedHookInput : HookInput;
    },
    body: ({ url, kinds, isOn }) => ({ url, kinds, ...(id ? { isOn } : {}) }),
    send: (body): Promise<Answer<{ secret?: string } | null>> =>
      id ? send('PUT', `/api/programs/${id}`, body) : send('POST', '/api/programs', body),
    done: (made) => onDone(made?.secret ?? ''),
  });
  const { values, set, at } = form;
  const everything = values.kinds.length === ALL_HOOK_KINDS.length;
  return (
    <Form
      of={form}
      legend="A program that is told"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Saving it" className="justify-self-start">
          {id ? 'Save' : 'Tell it from now on'}
        </Button>
      }
    >
      <Field
        label="Its address"
        type="url"
        placeholder="https://"
        maxLength={500}
        autoComplete="off"
        value={values.url}
        error={at('url')}
        onChange={(event) => set({ url: event.target.value })}
      />
      <fieldset className="min-w-0">
        <legend className="label mb-1">It is told when</legend>
        <div className="grid gap-x-4 gap-y-1 sm:grid-cols-2">
          {ALL_HOOK_KINDS.map((kind) => (
            <label key={kind} className="flex items-center gap-2">
              <Check
                checked={values.kinds.includes(kind)}
                onChange={(event) =>
                  set({
                    kinds: ALL_HOOK_KINDS.filter((one) =>
                      one === kind ? event.target.checked : values.kinds.includes(one),
                    ),
                  })
                }
              />
              {HOOK_KINDS[kind]}
            </label>
          ))}
        </div>
        <Button look="small-link" className="mt-2" onClick={() => set({ kinds: everything ? [] : ALL_HOOK_KINDS })}>
          {everything ? 'None of these' : 'All of these'}
        </Button>
        {at('kinds') ? <FieldError>{at('kinds')}</FieldError> : null}
      </fieldset>
      {id ? (
        <label className="flex items-center gap-2">
          <Check checked={values.isOn} onChange={(event) => set({ isOn: event.target.checked })} />
          Switched on
        </label>
      ) : null}
    </Form>
  );
}
