import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import type { NarrowingField } from './narrowing';

/** Leads to the payments of a customer, an offer, a plan, a partner or an item. @param called its name, for the list to say */
export function RegisterLink({
  of,
  id,
  called,
  children = 'Payments',
}: {
  of: NarrowingField;
  id: string;
  called: string;
  children?: ReactNode;
}) {
  return (
    <Link className="link" href={`/money/payments?${new URLSearchParams({ [of]: id, called })}` as Route}>
      {children}
    </Link>
  );
}
