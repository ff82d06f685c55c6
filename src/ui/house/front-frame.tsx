import Link from 'next/link';
import type { ReactNode } from 'react';
import { Rosette } from '../rosette';

/** What stands around every page before signing in: whose it is, and what else there is. */
export function FrontFrame({
  aside,
  wide = false,
  children,
}: {
  aside?: ReactNode;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <div className={`mx-auto flex min-h-dvh flex-col px-4 sm:px-7 ${wide ? 'max-w-[1180px]' : 'max-w-[920px]'}`}>
      <header className="flex h-[72px] flex-none items-center gap-3 border-b-[3px] border-double border-ink">
        <Link href="/" className="flex items-center gap-3 font-serif text-[25px]/8 font-semibold">
          <Rosette state="Paid" share={1} size={28} />
          Dahlia
        </Link>
        <span className="flex-1" />
        {aside}
      </header>
      {children}
    </div>
  );
}

/** One paper in the middle, with a heading and what is to be done. */
export function FrontSheet({ title, about, children }: { title: string; about?: ReactNode; children: ReactNode }) {
  return (
    <main className="mx-auto w-full max-w-[520px] py-10">
      <div className="sheet p-7 sm:p-9">
        <h1 className="title-screen">{title}</h1>
        {about ? <p className="document mt-1">{about}</p> : null}
        <div className="mt-6" aria-live="polite">
          {children}
        </div>
      </div>
    </main>
  );
}
