'use client';
import { useEffect, useState } from 'react';
import { escaped } from '@/core/words/escaped';
import { Button } from '../kit/button';
import { say, sayTrouble } from '../kit/toasts';

/** What is pasted into a website for a link: its picture where it has one, else its title. */
const snippetOf = (title: string, link: string, picture: string | null): string =>
  picture
    ? `<a href="${link}"><img src="${picture}" alt="${escaped(title)}" width="320"></a>`
    : `<a href="${link}">${escaped(title)}</a>`;

/** How a link or a page is passed on: as a message in any chat, and on a website. */
export function OfferSharing({
  house,
  title,
  link,
  picture,
}: {
  house: string;
  title: string;
  link: string;
  /** The address of its picture. */
  picture: string | null;
}) {
  const [canShare, setCanShare] = useState(false);
  useEffect(() => setCanShare(typeof navigator.share === 'function'), []);
  const message = `${house}: ${title}\n${link}`;
  const snippet = snippetOf(title, link, picture);
  async function copy(text: string, done: string) {
    await navigator.clipboard.writeText(text).then(
      () => say(done),
      () => sayTrouble('This browser does not let it be copied. Mark it and copy it by hand.'),
    );
  }
  async function share() {
    try {
      await navigator.share({ title: `${house}: ${title}`, url: link });
    } catch (error) {
      // Whoever closes the choice of chats has changed their mind.
      if (!(error instanceof DOMException && error.name === 'AbortError'))
        sayTrouble('This device shares nothing from here. Copy the message instead.');
    }
  }
  return (
    <section aria-label="Pass it on" className="mt-6">
      <h2 className="title-section border-b border-ink pb-1">Pass it on</h2>
      <div className="grid gap-4 py-3 sm:grid-cols-2">
        <div>
          <h3 className="label">In a chat</h3>
          <p className="whitespace-pre-line break-words bg-wash px-3.5 py-2.5 font-serif text-[15px]/5">{message}</p>
          <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
            <Button look="link" onClick={() => void copy(message, 'The message is copied: paste it into any chat')}>
              Copy message
            </Button>
            {canShare ? (
              <Button look="link" onClick={() => void share()}>
                Share by an app
              </Button>
            ) : null}
          </div>
        </div>
        <div>
          <h3 className="label">On a website</h3>
          <pre
            className="overflow-x-auto whitespace-pre-wrap break-all bg-wash px-3.5 py-2.5 text-[12.5px]/[19px]"
            data-snippet="html"
          >
            {snippet}
          </pre>
          <div className="mt-2">
            <Button look="link" onClick={() => void copy(snippet, 'Copied: paste it into your website')}>
              Copy HTML
            </Button>
          </div>
        </div>
      </div>
    </section>
  );
}
