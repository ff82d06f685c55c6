'use client';
import { useEffect, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import { Button } from '../kit/button';
import { send } from '../kit/send';

const PAUSE_MS = 250;
const LEAST_LETTERS = 3;

/** Who is about to be added may be on file already: said as soon as it can be known, never in the way. */
export function CustomersAlike({
  name,
  email,
  onTaken,
}: {
  name: string;
  email: string;
  onTaken: (customer: Customer) => void;
}) {
  const [alike, setAlike] = useState<readonly Customer[]>([]);
  useEffect(() => {
    if (name.trim().length < LEAST_LETTERS) return setAlike([]);
    const timer = setTimeout(async () => {
      const asked = new URLSearchParams({ name: name.trim(), email: email.trim() });
      const answer = await send<Customer[]>('GET', `/api/customers/alike?${asked}`);
      if (answer.ok) setAlike(answer.value);
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [name, email]);
  if (alike.length === 0) return null;
  return (
    <div className="border-l-0 bg-ochre-tint px-3 py-2" role="status">
      <p className="font-medium">Already on file?</p>
      <ul>
        {alike.map((one) => (
          <li key={one.id} className="flex items-baseline gap-2">
            <Button look="link" className="private" onClick={() => onTaken(one)}>
              {one.name}
            </Button>
            <span className="private small truncate text-soft">{one.email || one.phone}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
