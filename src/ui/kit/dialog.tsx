'use client';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

/** A dialog over the desk: title, what it is about, actions at its end. Escape and the cross close it. */
export function Dialog({
  open,
  onOpenChange,
  title,
  about,
  wide = false,
  children,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  title: string;
  about?: string;
  /** For tables of fields. */
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-50 bg-[rgb(36_26_38/45%)]" />
        <Radix.Content
          className={`sheet fixed left-1/2 top-[9vh] z-50 max-h-[86vh] -translate-x-1/2 overflow-auto p-6 ${wide ? 'w-[min(720px,calc(100vw-24px))]' : 'w-[min(480px,calc(100vw-24px))]'}`}
          {...(about ? {} : { 'aria-describedby': undefined })}
        >
          <Radix.Title className="title-section pr-10">{title}</Radix.Title>
          {about ? <Radix.Description className="mt-1 text-soft">{about}</Radix.Description> : null}
          <div className="mt-4">{children}</div>
          <Radix.Close
            className="absolute right-4 top-4 grid size-9 place-items-center rounded-control hover:bg-wash"
            aria-label="Close"
          >
            <X size={18} strokeWidth={1.5} />
          </Radix.Close>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
