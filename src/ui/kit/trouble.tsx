import type { ReactNode } from 'react';
import { Rosette } from '../rosette';

/** Something went wrong: what to do, and the reference that also stands in the log. */
export function Trouble({
  title,
  words,
  reference,
  children,
}: {
  title: string;
  words: string;
  reference?: string;
  children?: ReactNode;
}) {
  return (
    <div className="flex gap-6 p-7" role="alert">
      <Rosette state="Refused" size={44} />
      <div>
        <h2 className="title-section">{title}</h2>
        <p className="mt-1 max-w-[52ch]">{words}</p>
        {reference ? <p className="small mt-2 text-soft">Reference {reference}</p> : null}
        {children ? <div className="mt-4 flex gap-3">{children}</div> : null}
      </div>
    </div>
  );
}
