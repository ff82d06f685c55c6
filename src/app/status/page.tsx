import type { Metadata } from 'next';
import { noticed } from '@/flows/house/measures';

export const metadata: Metadata = { title: 'How Dahlia is', robots: 'noindex' };
export const dynamic = 'force-dynamic';

/** Whether it works at the moment, for people who wonder whether it is them. */
export default async function StatusPage() {
  const troubles = await noticed();
  return (
    <main className="grid min-h-dvh place-items-center bg-desk px-4 text-ink">
      <article className="sheet w-[min(520px,100%)] px-8 py-8" aria-label="How Dahlia is">
        <p className="label">Dahlia, at this moment</p>
        <h1 className={`title-screen mt-1 ${troubles.length === 0 ? 'text-leaf' : 'text-brick'}`} role="status">
          {troubles.length === 0 ? 'Everything works' : 'Not everything works'}
        </h1>
        {troubles.length > 0 ? (
          <ul className="document mt-4 grid gap-2 border-t border-rule pt-4">
            {troubles.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        ) : (
          <p className="document mt-3">
            Pages, payments, mails and the bank answer. If something does not, reload it once.
          </p>
        )}
        <p className="mt-6 flex gap-5 border-t border-rule pt-4">
          <a className="link" href="/status">
            Look again
          </a>
          <a className="link" href="/sign-in">
            Sign in
          </a>
        </p>
      </article>
    </main>
  );
}
