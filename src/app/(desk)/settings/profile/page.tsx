import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { authorisationWording } from '@/flows/plans/authorise';
import { businessProfile } from '@/flows/profile';
import { ratesToday } from '@/flows/rates';
import { ChargingSection } from '@/ui/profile/charging-section';
import { RatesSection, ReceiptSection, SecretSection } from '@/ui/profile/offer-sections';
import { ProfileForm } from '@/ui/profile/profile-form';

export const metadata: Metadata = { title: 'The business’s profile' };

export default async function ProfilePage() {
  const actor = await pageActor();
  const { business, series, terms } = await businessProfile(actor);
  const { id: _, address: _a, zone: _z, locale, currency, smallestPaymentMinor: _s, ...rest } = business;
  const { signingSecret, receiptStyle, charging, ...fields } = rest;
  const wording = await authorisationWording(actor);
  const rates = await ratesToday(actor);
  return (
    <ProfileForm
      fields={{ ...fields, series }}
      terms={terms.map(({ id, name, version, text }) => ({ id, name, version, text }))}
      locale={locale}
      currency={currency}
      mayAsk={actor.role !== 'reader'}
    >
      <ReceiptSection style={receiptStyle} mayAsk={actor.role !== 'reader'} />
      <ChargingSection policy={charging} wording={wording.text} mayAsk={actor.role !== 'reader'} />
      <RatesSection
        rates={rates && { on: rates.on, source: rates.source, perEuro: rates.perEuro }}
        mayAsk={actor.role !== 'reader'}
      />
      {actor.role === 'owner' ? <SecretSection secret={signingSecret} /> : null}
    </ProfileForm>
  );
}
