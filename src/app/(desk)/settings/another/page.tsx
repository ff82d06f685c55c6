import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { beginning } from '@/flows/house/sign-up';
import { businessToday } from '@/flows/payment/payment-list';
import { AnotherForm } from '@/ui/house/another-form';

export const metadata: Metadata = { title: 'Another business' };

export default async function AnotherPage() {
  const { business } = await businessToday(await pageActor('own'));
  const { country, zone, currency, paperLocale: locale } = business;
  const { countries } = await beginning('');
  return (
    <div className="mx-auto max-w-[620px] px-4 pb-10 pt-6 sm:px-7">
      <article className="sheet px-7 py-6" aria-label="Another business">
        <h1 className="title-screen mb-1">Another business</h1>
        <p className="document mb-5">
          With books, people and customers of its own. You sign in to both with one password, and go over by the menu
          behind the business’s name.
        </p>
        <AnotherForm first={{ country, zone, currency, locale }} countries={countries} />
      </article>
    </div>
  );
}
