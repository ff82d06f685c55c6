'use client';
import { X } from 'lucide-react';
import { type Approver, MOST_APPROVERS } from '@/core/paper/paper';
import { Button } from '../kit/button';

/** By whom a file is to be approved: people by name, each with a link of their own, or whoever has the invoice's. */
export function FileApprovers({
  name,
  approvers,
  onChange,
}: {
  /** The file's. */
  name: string;
  approvers: readonly Approver[];
  onChange: (approvers: readonly Approver[]) => void;
}) {
  const set = (id: string, part: Partial<Approver>) =>
    onChange(approvers.map((one) => (one.id === id ? { ...one, ...part } : one)));
  return (
    <div className="w-full pl-[22px]">
      {approvers.map((one, at) => (
        <div key={one.id} className="flex items-baseline gap-2">
          <input
            className="blank !font-sans !text-[13.5px]/[20px]"
            aria-label={`${name}: name of approver ${at + 1}`}
            placeholder="Name"
            maxLength={160}
            value={one.name}
            onChange={(event) => set(one.id, { name: event.target.value })}
          />
          <input
            className="blank !font-sans !text-[13.5px]/[20px]"
            type="email"
            aria-label={`${name}: e-mail address of approver ${at + 1}`}
            placeholder="E-mail address"
            maxLength={254}
            value={one.email}
            onChange={(event) => set(one.id, { email: event.target.value })}
          />
          <button
            type="button"
            className="grid size-6 flex-none place-items-center"
            aria-label={`Without ${one.name || `approver ${at + 1}`}`}
            onClick={() => onChange(approvers.filter(({ id }) => id !== one.id))}
          >
            <X size={13} strokeWidth={1.6} aria-hidden="true" />
          </button>
        </div>
      ))}
      <p className="small flex flex-wrap items-baseline gap-x-3 text-soft">
        {approvers.length === 0 ? 'By whoever has the link.' : 'Each gets a link of their own by e-mail.'}
        {approvers.length < MOST_APPROVERS ? (
          <Button
            look="small-link"
            opens
            onClick={() => onChange([...approvers, { id: crypto.randomUUID(), name: '', email: '' }])}
          >
            {approvers.length === 0 ? 'Name somebody' : 'And somebody else'}
          </Button>
        ) : null}
      </p>
    </div>
  );
}
