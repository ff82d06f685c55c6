'use client';
import { type FormEvent, type ReactNode, useEffect, useRef } from 'react';
import {
  type DefaultValues,
  type FieldValues,
  type Path,
  type PathValue,
  type Resolver,
  useForm,
} from 'react-hook-form';
import { usePersonId } from './at-desk';
import { FieldError } from './field';
import { type Answer, troubleOf } from './send';
import { forgetTyped, keepTyped, typedBefore } from './typed-words';

/** A class whose rules say what may be sent; asked for when a form is first sent, since the rules weigh more than the form. */
export type Shape = () => Promise<new () => object>;

type Given<Values extends FieldValues, Done> = {
  readonly start: Values;
  /** Under which name what is typed survives a reload; none for what is no loss, or secret. */
  readonly keepAs?: string;
  readonly shape?: Shape;
  /** What is sent of what is typed; the values themselves unless said otherwise. */
  readonly body?: (values: Values) => object;
  /** Sends it. The answer names places by the body's fields. */
  readonly send: (body: object, values: Values) => Promise<Answer<Done>>;
  readonly done: (value: Done, values: Values) => void;
};

/** A form while it is filled in. */
export type Typed<Values> = {
  readonly values: Values;
  readonly set: (part: Partial<Values>) => void;
  /** What is wrong at a place, by the body's fields (`billing.city`). */
  readonly at: (field: string) => string | undefined;
  /** Everything that is wrong, by place: for parts of a form that know their own names. */
  readonly troubles: Readonly<Record<string, string>>;
  /** What is wrong with the whole, where no place is named. */
  readonly trouble: string;
  readonly busy: boolean;
  /** Whether something is typed that is not kept. */
  readonly changed: boolean;
  readonly submit: () => Promise<void>;
  /** Begins again from these values, with nothing wrong and nothing typed. */
  readonly begin: (values: Values) => void;
  /** Leaves the form: what was typed is not kept. */
  readonly leave: () => void;
};

/** Messages of nested errors by their path. */
function flat(errors: object, path = ''): Record<string, string> {
  const found: Record<string, string> = {};
  for (const [name, error] of Object.entries(errors)) {
    if (typeof error !== 'object' || error === null || name === 'ref' || name === 'types') continue;
    const here = path ? `${path}.${name}` : name;
    if (typeof error.message === 'string' && error.message) found[here] = error.message;
    else Object.assign(found, flat(error, here));
  }
  return found;
}

const byShape =
  <Values extends FieldValues>(shape: Shape | undefined, body: (values: Values) => object): Resolver<Values> =>
  async (values, context, options) => {
    if (!shape) return { values, errors: {} };
    try {
      // First the library: the rules describe themselves with it as they load.
      const { classValidatorResolver } = await import('./rules');
      const found = await classValidatorResolver(await shape())(body(values), context, options as never);
      return { values, errors: found.errors } as Awaited<ReturnType<Resolver<Values>>>;
    } catch {
      // Without a connection the rules do not come: then the server checks, or the sending says that it cannot be reached.
      return { values, errors: {} };
    }
  };

/** A form: one way of being busy, of saying what is wrong and where, and of keeping what is typed until it is sent. */
export function useTyped<Values extends FieldValues, Done = unknown>({
  start,
  keepAs: called = '',
  shape,
  body = (values) => values,
  send,
  done,
}: Given<Values, Done>): Typed<Values> {
  // Whoever signs in after somebody in the same window finds none of their words.
  const personId = usePersonId();
  const keepAs = called && personId ? `${personId}:${called}` : '';
  const form = useForm<Values>({
    defaultValues: start as DefaultValues<Values>,
    resolver: byShape(shape, body),
    shouldFocusError: false,
  });
  const values = form.watch();
  const { errors, isDirty, isSubmitting, isSubmitted } = form.formState;
  const set = (part: Partial<Values>) => {
    for (const [name, value] of Object.entries(part))
      form.setValue(name as Path<Values>, value as PathValue<Values, Path<Values>>, {
        shouldDirty: true,
        shouldValidate: isSubmitted && shape !== undefined,
      });
  };

  // What was typed before a reload is there again; only in the browser, which alone knows of it.
  const restored = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the form comes up
  useEffect(() => {
    const before = keepAs ? typedBefore<Values>(keepAs) : null;
    if (before) set({ ...before });
    restored.current = true;
  }, []);
  useEffect(() => {
    if (!keepAs || !restored.current) return;
    if (isDirty) keepTyped(keepAs, values);
    else forgetTyped(keepAs);
  });

  const troubles = flat(errors);
  const submit = form.handleSubmit(async (typed) => {
    const answer = await send(body(typed), typed);
    if (answer.ok) {
      if (keepAs) forgetTyped(keepAs);
      form.reset(typed);
      return done(answer.value, typed);
    }
    for (const { field, words } of answer.fields) if (field) form.setError(field as Path<Values>, { message: words });
    if (answer.fields.length === 0) form.setError('root', { message: troubleOf(answer) });
  });
  return {
    values,
    set,
    at: (field) => troubles[field],
    troubles,
    trouble: troubles.root ?? '',
    busy: isSubmitting,
    changed: isDirty,
    submit: () => submit(),
    begin: (fresh) => form.reset(fresh),
    leave: () => keepAs && forgetTyped(keepAs),
  };
}

/** The form itself: Enter sends it, and nobody types into it who may not. What is wrong with the whole stands above its actions. */
export function Form<Values>({
  of,
  legend,
  disabled = false,
  className = 'grid gap-4',
  actions,
  children,
}: {
  of: Typed<Values>;
  /** What the form is, for who cannot see it. */
  legend: string;
  disabled?: boolean;
  className?: string;
  /** The buttons at its end; none where they stand at its head, and what is wrong then stands there too. */
  actions?: ReactNode;
  children: ReactNode;
}) {
  const trouble = of.trouble ? <FieldError>{of.trouble}</FieldError> : null;
  return (
    <form
      noValidate
      onSubmit={(event: FormEvent<HTMLFormElement>) => {
        event.preventDefault();
        // Where this form stands over a paper, the paper is a form of its own.
        event.stopPropagation();
        const form = event.currentTarget;
        void of
          .submit()
          .then(() => requestAnimationFrame(() => form.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus()));
      }}
    >
      <fieldset disabled={disabled} className={`min-w-0 ${className}`}>
        <legend className="sr-only">{legend}</legend>
        {actions ? null : trouble}
        {children}
        {actions ? trouble : null}
        {actions}
      </fieldset>
    </form>
  );
}
