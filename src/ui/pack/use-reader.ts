'use client';
import { useEffect, useRef } from 'react';

/** A reader types its signs faster than anybody: less than so many milliseconds apart, and ends with Enter. */
const FAST_MS = 45;
const LEAST_SIGNS = 5;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** What a barcode reader types from anywhere but a field. */
export function useReader(onRead: (text: string) => void): void {
  const heard = useRef(onRead);
  heard.current = onRead;
  useEffect(() => {
    let text = '';
    let last = 0;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"]')) return;
      if (event.key === 'Enter') {
        if (text.length >= LEAST_SIGNS && event.timeStamp - last < FAST_MS) {
          event.preventDefault();
          heard.current(text);
        }
        text = '';
        return;
      }
      if (event.key.length !== 1) return;
      text = event.timeStamp - last < FAST_MS ? text + event.key : event.key;
      last = event.timeStamp;
      // The second sign of a reader is no key of the desk.
      if (text.length > 1) event.stopPropagation();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
}
