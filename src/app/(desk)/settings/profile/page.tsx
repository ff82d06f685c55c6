import type { Metadata } from 'next';
import Link from 'next/link';
import { pageActor } from '@/app/session';
import { mayDo } from '@/core/person/rights';
import { authorisationWording } from '@/flows/plan/authorise';
import { businessProfile } from '@/flows/records/profile';
import { ratesToday } from '@/flows/records/rates';
import { ChargingSection } from '@/ui/profile/charging-section';
import { FrontsSection } from '@/ui/profile/fronts-section';
import { RatesSection, ReceiptSection, SecretSection } from '@/ui/profile/offer-sections';
import { ProfileForm } from '@/ui/profile/profile-form';
import { TariffSection } from '@/ui/profile/tariff-section';

export const metadata: Metadata = { title: 'The business’s profile' };

export default async function ProfilePage() {
  const actor = await pageActor();
  const { business, series, terms } = await businessProfile(actor);
  const { id: _, address: _a, zone: _z, paperLocale: _p, deskLocale: locale, currency, ...rest } = business;
  const { signingSecret, receiptStyle, charging, tariff, tradingNames, locations, ...told } = rest;
  const { signedUpAt: _s, mailConfirmedAt: _m, kind, statementName, cardsSince, verifiedAt: _v, ...fields } = told;
  const wording = await authorisationWording(actor);
  const rates = await ratesToday(actor);
  return (
    <ProfileForm
      fields={{ ...fields, series }}
      terms={terms.map(({ id, name, version, text }) => ({ id, name, version, text }))}
      locale={locale}
      currency={currency}
      mayAsk={mayDo(actor, 'settings')}
    >
      <FrontsSection
        fronts={{ tradingNames, locations }}
        business={{ name: fields.name, country: fields.country, accent: fields.accent }}
        series={series.map(({ name }) => name)}
        mayAsk={mayDo(actor, 'settings')}
      />
      <ReceiptSection style={receiptStyle} mayAsk={mayDo(actor, 'settings')} />
      <ChargingSection policy={charging} wording={wording.text} mayAsk={mayDo(actor, 'settings')} />
      <TariffSection tariff={tariff} currency={currency} mayAsk={mayDo(actor, 'settings')} />
      <RatesSection
        rates={rates && { on: rates.on, source: rates.source, perEuro: rates.perEuro, age: rates.age }}
        mayAsk={mayDo(actor, 'settings')}
      />
      {mayDo(actor, 'people') ? (
        <>
          <SecretSection secret={signingSecret} />
          <p className="mt-6">
            <Link className="link" href="/settings/log">
              The log: who changed what, and who signed in
            </Link>
          </p>
        </>
      ) : null}
    </ProfileForm>
  );
}
