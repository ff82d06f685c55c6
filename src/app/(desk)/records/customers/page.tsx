import type { Metadata } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { customerOverview } from '@/flows/records/customers';

export const metadata: Metadata = { title: 'Customers' };

export default async function NoCustomerOpen() {
  const actor = await pageActor();
  const { count, groups } = await customerOverview(actor);
  return (
    <div className="mx-auto mt-16 max-w-[46ch] font-serif text-[16.5px]/[25px]">
      <p>{count === 1 ? '1 customer is' : `${count} customers are`} on file. Choose one to see it here.</p>
      {groups.length > 0 ? (
        <ul className="mt-5">
          {groups.map((group) => (
            <li key={group.name} className="leader">
              <span>{group.name}</span>
              <span className="dots" aria-hidden="true" />
              <span>{group.count}</span>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="mt-6 flex flex-wrap gap-x-6 gap-y-2">
        {!mayDo(actor, 'records') ? null : (
          <Link className="link" href="/records/customers/import">
            Import from a file
          </Link>
        )}
        <a className="link" href="/files/customers?form=csv">
          All as CSV
        </a>
        <a className="link" href="/files/customers?form=vcf">
          All as vCards
        </a>
        <Link className="link" href="/records/letters">
          Donation statements
        </Link>
      </p>
    </div>
  );
}
