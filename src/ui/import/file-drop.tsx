'use client';
import { Upload } from 'lucide-react';
import { type DragEvent, useId, useState } from 'react';

/** Whether the place is closed with the fields around it: a browser closes the button, and knows nothing of dropping. */
const isClosed = ({ currentTarget }: DragEvent<HTMLElement>): boolean =>
  currentTarget.querySelector('input:disabled') !== null;

/** A place to drop a file on, and a button that opens the computer's own choice. */
export function FileDrop({
  label,
  accept,
  hint = 'or drop it here',
  onFile,
}: {
  label: string;
  accept: string;
  hint?: string;
  onFile: (file: File) => void | Promise<void>;
}) {
  const id = useId();
  const [over, setOver] = useState(false);
  return (
    <section
      aria-label={label}
      className={`group border border-dashed px-5 py-6 text-center ${over ? 'border-plum bg-petal' : 'border-edge bg-wash'}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(!isClosed(event));
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const [file] = event.dataTransfer.files;
        if (file && !isClosed(event)) void onFile(file);
      }}
    >
      <label
        htmlFor={id}
        className="link inline-flex cursor-pointer items-center gap-2 focus-within:outline-2 group-has-[input:disabled]:cursor-not-allowed group-has-[input:disabled]:text-soft group-has-[input:disabled]:no-underline"
      >
        <Upload size={16} strokeWidth={1.6} aria-hidden="true" />
        {label}
        <input
          id={id}
          type="file"
          accept={accept}
          className="sr-only"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            // The same file can be chosen again after it was mended.
            event.target.value = '';
            if (file) void onFile(file);
          }}
        />
      </label>
      <p className="small mt-1 text-soft group-has-[input:disabled]:hidden">{hint}</p>
    </section>
  );
}
