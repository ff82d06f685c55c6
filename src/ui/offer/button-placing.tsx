'use client';
import { Tabs } from 'radix-ui';
import { Button } from '../kit/button';
import { say, sayTrouble } from '../kit/toasts';

const WAYS = [
  { key: 'html', name: 'HTML', about: 'A picture with a link: works everywhere, without any script.' },
  { key: 'script', name: 'Script', about: 'Opens the checkout over your page, on the websites that you named.' },
  { key: 'link', name: 'Link', about: 'The checkout’s own address.' },
] as const;

/** What is pasted into a website, with the place to try it. */
export function ButtonPlacing({
  html,
  script,
  link,
  tryAt,
  picture,
}: {
  html: string;
  script: string;
  link: string;
  /** The sample website; empty where there is none. */
  tryAt: string;
  /** The address of the drawing. */
  picture: string;
}) {
  const texts = { html, script, link };
  async function copy(text: string) {
    await navigator.clipboard.writeText(text).then(
      () => say('Copied: paste it into your website'),
      () => sayTrouble('This browser does not let it be copied. Mark it and copy it by hand.'),
    );
  }
  return (
    <section aria-label="Place it" className="mt-6">
      <Tabs.Root defaultValue="html">
        <div className="flex items-end border-b border-ink">
          <h2 className="title-section flex-1 pb-1">Place it</h2>
          <Tabs.List aria-label="Ways to place it" className="flex">
            {WAYS.map(({ key, name }) => (
              <Tabs.Trigger
                key={key}
                value={key}
                className="relative -mb-px h-[30px] border border-transparent px-3.5 text-soft data-[state=active]:z-10 data-[state=active]:border-ink data-[state=active]:border-b-sheet data-[state=active]:bg-sheet data-[state=active]:font-semibold data-[state=active]:text-ink"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
        </div>
        {WAYS.map(({ key, about }) => (
          <Tabs.Content key={key} value={key} className="py-3">
            <p className="text-soft">{about}</p>
            <pre
              className="mt-2 overflow-x-auto whitespace-pre-wrap break-all bg-wash px-3.5 py-3 text-[12.5px]/[19px]"
              data-snippet={key}
            >
              {texts[key]}
            </pre>
            <div className="mt-2 flex flex-wrap items-center gap-5">
              <Button onClick={() => void copy(texts[key])}>Copy it</Button>
              {tryAt && key !== 'link' ? (
                <form method="post" action={tryAt} target="_blank" className="inline" rel="noopener">
                  <input type="hidden" name="snippet" value={texts[key]} />
                  <Button type="submit" look="link">
                    Try it on the sample website
                  </Button>
                </form>
              ) : null}
              {/* biome-ignore lint/performance/noImgElement: the button as it stands on websites */}
              <img src={picture} alt="The button" className="ml-auto max-h-[52px]" />
            </div>
          </Tabs.Content>
        ))}
      </Tabs.Root>
      <p className="small text-soft">
        Add <code>?pass_campaign=spring</code> to the link, or <code>data-pass-campaign="spring"</code> to the script,
        and it stands on the payment.
      </p>
    </section>
  );
}
