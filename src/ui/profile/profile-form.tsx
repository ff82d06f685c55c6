'use client';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import type { ProfileFields } from '@/core/business/business';
import { Button } from '../kit/button';
import { Form, useTyped } from '../kit/form';
import { OwnersOnly } from '../kit/owners-only';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import { ProfileInvoices, ProfileMail, ProfileNumbers } from './profile-invoices';
import { profileTyped, typedProfile } from './profile-typed';
import { ProfileWho } from './profile-who';
import { TermsSection, type TermsText } from './terms-section';

const rules = () => import('@/input/profile-input').then(({ ProfileInput }) => ProfileInput);

/** All that the business's documents show and how they go out. */
export function ProfileForm({
  fields,
  terms,
  locale,
  currency,
  mayAsk,
  children,
}: {
  fields: ProfileFields;
  terms: readonly TermsText[];
  locale: string;
  currency: string;
  mayAsk: boolean;
  /** Sections of their own, below. */
  children?: ReactNode;
}) {
  const router = useRouter();
  const form = useTyped({
    start: typedProfile(fields),
    keepAs: 'profile',
    shape: rules,
    body: profileTyped,
    send: (body) => send('PUT', '/api/profile', body),
    done: () => {
      say('The profile is saved');
      router.refresh();
    },
  });
  return (
    <div className="mx-auto max-w-[860px] px-4 pb-12 pt-4 sm:px-7">
      <article className="sheet px-5 py-5 sm:px-8" aria-label="The business’s profile">
        <Form of={form} legend="The profile" disabled={!mayAsk}>
          <div className="flex flex-wrap items-baseline gap-4">
            <h1 className="title-screen flex-1">{form.values.name || 'The business'}</h1>
            <Button type="submit" look="go" busy={form.busy} disabled={!mayAsk} busyWords="Saving">
              Save profile
            </Button>
          </div>
          <OwnersOnly may={mayAsk} />
          <ProfileWho of={form} currency={currency} />
          <ProfileInvoices of={form} terms={terms} currency={currency} locale={locale} />
          <ProfileMail of={form} />
          <ProfileNumbers of={form} />
        </Form>
        <div className="mt-6">
          <TermsSection terms={terms} mayAsk={mayAsk} />
        </div>
        {children}
      </article>
    </div>
  );
}
