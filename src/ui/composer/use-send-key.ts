'use client';
import { useEffect } from 'react';

/** Control and Enter send, from anywhere on the page, unless a dialog is open. */
export function useSendKey(send: () => void, may: boolean): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key !== 'Enter') return;
      if (!may || document.querySelector('[role="dialog"]')) return;
      event.preventDefault();
      send();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [send, may]);
}
