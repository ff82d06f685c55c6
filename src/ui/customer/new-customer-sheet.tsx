'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { CustomerForm } from './customer-form';

/** The sheet on which a customer is added. */
export function NewCustomerSheet({ home }: { home: string }) {
  const router = useRouter();
  return (
    <article className="sheet max-w-[640px] px-7 py-5" aria-label="A new customer">
      <h1 className="title-screen mb-4">A new customer</h1>
      <CustomerForm
        customer={null}
        home={home}
        onLeave={() => router.push('/records/customers')}
        onDone={(added) => {
          router.push(`/records/customers/${added.id}` as Route);
          router.refresh();
        }}
      />
    </article>
  );
}
