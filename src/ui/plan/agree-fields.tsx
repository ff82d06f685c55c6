'use client';
import { Check } from '../kit/check';
import { FieldError } from '../kit/field';

/** The tick with which a customer agrees. @param trouble what is said under it; empty where nothing is wrong */
export function AgreeTick({
  words,
  agrees,
  trouble = '',
  onAgree,
}: {
  words: { readonly agree: string };
  agrees: boolean;
  trouble?: string | undefined;
  onAgree: (agrees: boolean) => void;
}) {
  return (
    <div>
      <label className="flex min-h-11 items-center gap-3 text-[16px]">
        <Check tall checked={agrees} onChange={(event) => onAgree(event.target.checked)} />
        {words.agree}
      </label>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}

/** The name under which a customer agrees. @param trouble what is said under it; empty where nothing is wrong */
export function AgreedBy({
  words,
  name,
  trouble = '',
  onName,
}: {
  words: { readonly yourName: string };
  name: string;
  trouble?: string | undefined;
  onName: (name: string) => void;
}) {
  return (
    <div>
      <label className="mb-1 block text-[15px] font-medium" htmlFor="agreed-by">
        {words.yourName}
      </label>
      <input
        id="agreed-by"
        className="input min-h-11 !text-[16px]"
        autoComplete="name"
        maxLength={120}
        value={name}
        aria-invalid={trouble ? true : undefined}
        onChange={(event) => onName(event.target.value)}
      />
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}
