'use client';
import { Toaster, toast } from 'sonner';

/** Where toasts appear; once a page. */
export function Toasts() {
  return (
    <Toaster
      position="bottom-left"
      duration={6000}
      visibleToasts={3}
      toastOptions={{
        unstyled: true,
        classNames: {
          toast:
            'font-sans flex items-center gap-4 w-[min(420px,90vw)] rounded-control px-4 py-2.5 bg-ink text-desk text-[13.5px] leading-5 data-[type=error]:bg-sheet data-[type=error]:text-ink data-[type=error]:border data-[type=error]:border-brick',
          actionButton: 'ml-auto font-medium underline underline-offset-4 whitespace-nowrap',
        },
      }}
      icons={{ error: <span aria-hidden="true" className="size-2 rounded-full bg-brick" /> }}
    />
  );
}

/** Something was done; `action` can take it back or lead on. */
export const say = (words: string, action?: { label: string; onClick: () => void }): void => {
  toast(words, action ? { action } : {});
};

/** Something was not done, and what to do. */
export const sayTrouble = (words: string, action?: { label: string; onClick: () => void }): void => {
  toast.error(words, { duration: 10_000, ...(action ? { action } : {}) });
};
