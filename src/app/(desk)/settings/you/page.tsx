import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import { pageActor, SESSION_COOKIE } from '@/app/session';
import { shownSteps } from '@/app/shown-steps';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { myAddressChange } from '@/flows/house/new-address';
import { ownSettings } from '@/flows/house/own-settings';
import { signedInPlaces } from '@/flows/house/sign-in';
import { businessToday } from '@/flows/payment/payment-list';
import { AddressPanel } from '@/ui/house/new-address';
import { OwnNews } from '@/ui/house/own-news';
import { OwnWriting } from '@/ui/house/own-writing';
import { SignedInPlaces } from '@/ui/house/signed-in-places';
import { LeaveBusiness } from '@/ui/people/leave-business';
import { PasswordForm } from '@/ui/profile/password-form';
import { StepsPanel } from '@/ui/steps/steps-panel';

export const metadata: Metadata = { title: 'You' };

export default async function YouPage() {
  const actor = await pageActor('own');
  const { business, today } = await businessToday(actor);
  const { zone, deskLocale: locale, paperLocale } = business;
  const own = await ownSettings(actor);
  const token = (await cookies()).get(SESSION_COOKIE)?.value ?? '';
  const steps = await shownSteps(actor, business);
  const places = await signedInPlaces(actor, token);
  const time = (at: Date) => `${shortDate(dateInZone(at, zone), locale, { year: true })}, ${clockTime(at, zone)}`;
  return (
    <div className="mx-auto max-w-[620px] px-4 pb-10 pt-6 sm:px-7">
      <article className="sheet px-7 py-6" aria-label="You">
        <h1 className="title-screen mb-4">{actor.name}</h1>
        <h2 className="title-section border-b border-ink pb-1.5">Your address</h2>
        <AddressPanel email={steps.email} confirmed={steps.confirmed} pending={await myAddressChange(actor)} />
        <h2 className="title-section mb-3 mt-8 border-b border-ink pb-1.5">How you write dates and numbers</h2>
        <p className="mb-3 text-soft">
          So they are written for you at the desk, and read when you type. Papers and mails to customers stay as they
          are.
        </p>
        <OwnWriting writing={own.writing} locale={paperLocale} today={today} />
        <h2 id="news" className="title-section mb-2 mt-8 scroll-mt-4 border-b border-ink pb-1.5">
          What you hear of
        </h2>
        {own.news ? (
          <OwnNews news={own.news} canBeMailed={own.canBeMailed} zone={zone} />
        ) : (
          <p className="text-soft">News tell of customers and sums, and some of that is hidden from you.</p>
        )}
        <h2 className="title-section mt-8 border-b border-ink pb-1.5">Second step when signing in</h2>
        <StepsPanel steps={steps} />
        <h2 className="title-section mb-1 mt-8 border-b border-ink pb-1.5">Where you are signed in</h2>
        <SignedInPlaces
          places={places.map(({ key, program, address, since, usedAt, here }) => ({
            key,
            program,
            address,
            since: time(since),
            used: time(usedAt),
            here,
          }))}
        />
        <h2 className="title-section mb-1 mt-8 border-b border-ink pb-1.5">Your password</h2>
        <p className="mb-4 mt-2 text-soft">
          With a new password you stay signed in here; everywhere else your sessions end at once.
        </p>
        <PasswordForm />
        <div className="mt-8 border-t border-rule pt-4">
          <LeaveBusiness business={business.name} />
        </div>
      </article>
    </div>
  );
}
