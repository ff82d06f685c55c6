'use client';
import { Tabs } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';

const VIEWS = [
  { name: 'E-mail', path: 'mail', width: 620, about: 'as a mail program shows it' },
  { name: 'Phone', path: 'page', width: 390, about: 'when the link is opened on a phone' },
  { name: 'Page', path: 'page', width: 1180, about: 'when the link is opened on a computer' },
  { name: 'PDF', path: 'pdf', width: 0, about: 'attached to the e-mail' },
] as const;

/** One view in its own width, made smaller to fit. A view of width 0 fills the pane as it is. */
export function Scaled({ src, title, width, height }: { src: string; title: string; width: number; height: number }) {
  const box = useRef<HTMLDivElement>(null);
  const [space, setSpace] = useState(430);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => entry && setSpace(entry.contentRect.width));
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const phone = width > 0 && width < 500;
  const scale = width === 0 ? 1 : Math.min(phone ? 0.62 : 1, space / width);
  return (
    <div ref={box} className={`overflow-hidden ${phone ? 'flex justify-center bg-desk pt-4' : ''}`} style={{ height }}>
      <div
        className={phone ? 'overflow-hidden rounded-t-[16px] border-[5px] border-b-0 border-ink bg-desk' : ''}
        style={{ width: width === 0 ? '100%' : width * scale + (phone ? 10 : 0), height }}
      >
        <iframe
          src={src}
          title={title}
          className="border-0 bg-desk"
          style={{
            width: width === 0 ? '100%' : width,
            height: height / scale,
            transform: `scale(${scale})`,
            transformOrigin: '0 0',
          }}
        />
      </div>
    </div>
  );
}

/** What the customer will get, by the same code that serves the customer; renewed when the draft was kept. */
export function ProofPane({ id, revision, who }: { id: string; revision: number; who: string }) {
  const [view, setView] = useState<string>('Phone');
  return (
    <Tabs.Root value={view} onValueChange={setView} activationMode="manual">
      <div className="flex items-end">
        <h2 className="title-section flex-1 pb-1">Proof</h2>
        <Tabs.List aria-label="Proof" className="flex">
          {VIEWS.map(({ name }) => (
            <Tabs.Trigger
              key={name}
              value={name}
              className="relative -mb-px h-[30px] border border-transparent px-3.5 text-soft data-[state=active]:z-10 data-[state=active]:border-ink data-[state=active]:border-b-sheet data-[state=active]:bg-sheet data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </div>
      <div className="border border-ink bg-sheet">
        {VIEWS.map(({ name, path, width, about }) => (
          <Tabs.Content key={name} value={name} className="outline-offset-[-2px]">
            <p className="small flex items-baseline justify-between gap-3 border-b border-rule px-3.5 py-1.5">
              <span>
                <b className="font-semibold">What {who} gets</b> <span className="text-soft">{about}</span>
              </span>
              <a className="link link-small" href={`/proof/${id}/${path}`} target="_blank" rel="noreferrer">
                Open it
              </a>
            </p>
            <Scaled
              src={`/proof/${id}/${path}?revision=${revision}`}
              title={`Proof: ${name}`}
              width={width}
              height={440}
            />
          </Tabs.Content>
        ))}
      </div>
    </Tabs.Root>
  );
}
