'use client';
import { useEffect } from 'react';

const PLACE = 'paid-just-now';

/** Notes that an order was paid in this tab a moment ago: its page then leads on by itself, once. */
export const noteJustPaid = (order: string): void => sessionStorage.setItem(PLACE, order);

/** Leads on to the business's own website, right after paying; whoever comes back later finds a link instead. */
export function LeadOn({ order, to }: { order: string; to: string }) {
  useEffect(() => {
    if (sessionStorage.getItem(PLACE) !== order) return;
    sessionStorage.removeItem(PLACE);
    location.replace(to);
  }, [order, to]);
  return null;
}
