'use client';
import { Upload } from 'lucide-react';
import { useId, useState } from 'react';

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
      className={`border border-dashed px-5 py-6 text-center ${over ? 'border-plum bg-petal' : 'border-edge bg-wash'}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const [file] = event.dataTransfer.files;
        if (file) void onFile(file);
      }}
    >
      <label htmlFor={id} className="link inline-flex cursor-pointer items-center gap-2 focus-within:outline-2">
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
      <p className="small mt-1 text-soft">{hint}</p>
    </section>
  );
}
