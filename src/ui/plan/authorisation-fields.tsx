'use client';
import { useState } from 'react';
import type { AuthorisedHow } from '@/core/timeline/timeline';
import { Field } from '../kit/field';
import { Segment } from '../kit/segment';
import { upload } from '../kit/send-file';
import { SignatureField } from './signature-pad';

/** How a customer authorised, as it is taken down at the desk. */
export type GivenTyped = {
  readonly how: Exclude<AuthorisedHow, 'ticked'>;
  readonly givenBy: string;
  readonly file: Blob | null;
  readonly fileName: string;
};

export const newGiven = (name: string): GivenTyped => ({ how: 'drawn', givenBy: name, file: null, fileName: '' });

/** Keeps the signature or the paper, and gives back what is sent. */
export async function givenSent(
  given: GivenTyped,
): Promise<{ how: AuthorisedHow; givenBy: string; fileId: string | null } | { trouble: string }> {
  if (!given.givenBy.trim()) return { trouble: 'Write who authorised it.' };
  const { how, givenBy } = given;
  if (how === 'telephone') return { how, givenBy, fileId: null };
  if (!given.file)
    return {
      trouble:
        how === 'drawn' ? 'Let the customer sign in the field.' : 'Choose the picture or PDF of the signed paper.',
    };
  const name = how === 'drawn' ? 'signature.png' : given.fileName;
  const answer = await upload(given.file, 'authorisation', name);
  return answer.ok ? { how, givenBy, fileId: answer.value.id } : { trouble: answer.words };
}

/** How the customer agreed: signed here, on paper, or by telephone. @param paper where the paper to be signed is printed */
export function AuthorisationFields({
  given,
  paper,
  onChange,
}: {
  given: GivenTyped;
  paper?: string;
  onChange: (given: GivenTyped) => void;
}) {
  const [name, setName] = useState(given.fileName);
  return (
    <div className="grid gap-3.5">
      <Segment
        label="How the customer agrees"
        value={given.how}
        choices={[
          ['drawn', 'Signs here'],
          ['telephone', 'By telephone'],
          ['paper', 'On paper'],
        ]}
        onChoose={(how) => onChange({ ...given, how, file: null })}
      />
      <Field
        label={given.how === 'telephone' ? 'Who said it on the telephone' : 'Name of whoever signs'}
        value={given.givenBy}
        maxLength={120}
        onChange={(event) => onChange({ ...given, givenBy: event.target.value })}
      />
      {given.how === 'drawn' ? (
        <SignatureField
          label="Signature"
          onSigned={(file) => onChange({ ...given, file, fileName: 'signature.png' })}
        />
      ) : null}
      {given.how === 'paper' ? (
        <div>
          {paper ? (
            <a className="link" href={paper} target="_blank" rel="noreferrer">
              Print the paper
            </a>
          ) : null}
          <label className="label mb-1 mt-2 block" htmlFor="signed-paper">
            The signed paper, as a picture or PDF
          </label>
          <input
            id="signed-paper"
            type="file"
            accept="application/pdf,image/*"
            onChange={(event) => {
              const file = event.target.files?.[0] ?? null;
              setName(file?.name ?? '');
              onChange({ ...given, file, fileName: file?.name ?? '' });
            }}
          />
          {name ? <p className="small mt-1 text-soft">{name}</p> : null}
        </div>
      ) : null}
    </div>
  );
}
