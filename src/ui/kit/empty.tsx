import type { ReactNode } from 'react';
import { Rosette } from '../rosette';

/** Nothing here yet: what it would be, and how to begin. */
export function Empty({ words, children }: { words: string; children?: ReactNode }) {
  return (
    <div className="flex items-center gap-6 p-7">
      <Rosette state="Draft" size={44} />
      <div>
        <p className="max-w-[44ch] font-serif text-[16.5px]/[23px]">{words}</p>
        {children ? <div className="mt-3 flex gap-3">{children}</div> : null}
      </div>
    </div>
  );
}
