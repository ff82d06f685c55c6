'use client';
import { useEffect } from 'react';

const SECOND_KEY_MS = 1200;

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/**
 * Single keys and pairs (`g t`) that act from anywhere, except while somebody types or a dialog is open.
 *
 * @param actions by key or pair; `mod+k` acts while typing too
 */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  useEffect(() => {
    let first = '';
    let firstAt = 0;
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k' && actions['mod+k']) {
        event.preventDefault();
        actions['mod+k']();
        return;
      }
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"], [role="menu"], [data-radix-select-viewport]')) return;
      const pair = Date.now() - firstAt < SECOND_KEY_MS ? `${first} ${event.key}` : '';
      const action = actions[pair] ?? actions[event.key];
      first = event.key;
      firstAt = Date.now();
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [actions]);
}
