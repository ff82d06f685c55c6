'use client';
import { FileText, X } from 'lucide-react';
import { useState } from 'react';
import { MOST_FILES, type PaperFile } from '@/core/paper/paper';
import { FileDrop } from '../import/file-drop';
import { Check } from '../kit/check';
import { FieldError } from '../kit/field';
import { upload } from '../kit/send-file';
import { FileApprovers } from './file-approvers';

const sizeWords = (bytes: number): string =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} KB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

/** Files that go with the invoice, some of them to be approved by the customer. */
export function PaperFiles({
  files,
  onChange,
}: {
  files: readonly PaperFile[];
  onChange: (files: readonly PaperFile[]) => void;
}) {
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  async function add(file: File) {
    setTrouble('');
    setBusy(true);
    const answer = await upload(file, 'attachment', file.name);
    setBusy(false);
    if (!answer.ok) return setTrouble(answer.words);
    onChange([...files, { ...answer.value, approve: false }]);
  }

  return (
    <div>
      <span className="label mb-1">Files</span>
      <ul className="grid gap-1.5">
        {files.map((file) => (
          <li key={file.id} className="flex flex-wrap items-center gap-x-2 border-b border-rule pb-1">
            <FileText size={15} strokeWidth={1.5} aria-hidden="true" />
            <a
              className="min-w-0 flex-1 truncate hover:underline"
              href={`/files/own/${file.id}`}
              target="_blank"
              rel="noreferrer"
            >
              {file.name}
            </a>
            <span className="small text-soft">{sizeWords(file.size)}</span>
            <label className="small flex items-center gap-1">
              <Check
                checked={file.approve}
                onChange={(event) =>
                  onChange(files.map((one) => (one.id === file.id ? { ...one, approve: event.target.checked } : one)))
                }
              />
              to be approved
            </label>
            <button
              type="button"
              className="grid size-6 place-items-center"
              aria-label={`Without ${file.name}`}
              onClick={() => onChange(files.filter(({ id }) => id !== file.id))}
            >
              <X size={13} strokeWidth={1.6} aria-hidden="true" />
            </button>
            {file.approve ? (
              <FileApprovers
                name={file.name}
                approvers={file.approvers ?? []}
                onChange={(approvers) =>
                  onChange(files.map((one) => (one.id === file.id ? { ...one, approvers } : one)))
                }
              />
            ) : null}
          </li>
        ))}
      </ul>
      {files.length < MOST_FILES ? (
        <div className="mt-2">
          <FileDrop
            label={busy ? 'Sending it up' : 'Add a file'}
            accept=".pdf,.png,.jpg,.jpeg,.gif,.webp,.tif,.tiff,.docx,.xlsx,.csv"
            hint={`up to 10 MB each, ${MOST_FILES} in all`}
            onFile={add}
          />
        </div>
      ) : null}
      {trouble ? <FieldError>{trouble}</FieldError> : null}
    </div>
  );
}
