import type { Fronts } from '../front/front';
import type { KeepingRule } from '../keeping/keeping';
import { moneyText, plainSum } from '../money/money-text';
import { DISPUTE_RULE_WORDS, disputeRuleOf, type PayoutPolicy, whenWords } from '../payout/policy';
import type { ChargingPolicy } from '../plan/dunning';
import type { BusinessTax } from '../tax/business-tax';
import type { VoucherRule } from '../voucher/voucher';
import type { Business } from './business';
import { businessKind } from './kinds';
import { type Tariff, tariffText } from './tariff';

/** Something that was changed, in words: what, and from which text to which; an empty text where there was or is none. */
export type Changed = { readonly what: string; readonly from: string; readonly to: string };

/** A setting as people read it, by a key that stays: what it is, and its value as text. */
export type Shown = ReadonlyMap<string, { readonly what: string; readonly text: string }>;

/** What differs between two states of the same settings, in their order; what is new comes last. */
export function changedBetween(before: Shown, after: Shown): Changed[] {
  const keys = [...before.keys(), ...[...after.keys()].filter((key) => !before.has(key))];
  return keys.flatMap((key) => {
    const [was, is] = [before.get(key), after.get(key)];
    const [from, to] = [was?.text ?? '', is?.text ?? ''];
    return from === to ? [] : [{ what: is?.what ?? was?.what ?? key, from, to }];
  });
}

const yesNo = (value: boolean): string => (value ? 'yes' : 'no');
const shown = (rows: readonly (readonly [what: string, text: string])[]): Shown =>
  new Map(rows.map(([what, text]) => [what, { what, text }]));

/** How people sign in, and from which sum on they are asked again. @param aboveMinor in minor units of the currency */
export const accessSettings = (
  { stepRequired, aboveMinor }: { readonly stepRequired: boolean; readonly aboveMinor: bigint },
  currency: string,
  locale: string,
): Shown =>
  shown([
    ['A second step when signing in is asked of everybody', yesNo(stepRequired)],
    ['Asked again before giving back more than', moneyText({ minor: aboveMinor, currency }, locale)],
  ]);

/** How long things are kept. */
export const keepingSettings = (rule: KeepingRule): Shown =>
  shown([
    ['Papers are kept for years', String(rule.paperYears)],
    ['Checkouts not paid are kept for days', String(rule.checkoutDays)],
    ['What mails said is kept for months', String(rule.mailMonths)],
    ['What programs were told is kept for days', String(rule.programDays)],
  ]);

/** What of a profile decides where money goes and how it is counted. */
export function profileSettings(business: Business): Shown {
  const { bank, ways, place } = business;
  return shown([
    ['Name of the business', business.name],
    ['E-mail of the business', business.email],
    ['Account holder', bank.holder],
    ['Account number', bank.account],
    ['Bank code', bank.bankCode],
    ['Bank', bank.bank],
    ...(bank.others ?? []).flatMap(
      (one) =>
        [
          [`Account holder ${one.currency}`, one.holder],
          [`Account number ${one.currency}`, one.account],
          [`Bank code ${one.currency}`, one.bankCode],
        ] as const,
    ),
    ['Tax number', business.taxNumber],
    ['Country', place.country || business.country],
    ['Region', place.region],
    ['Postal code', place.postalCode],
    ['Prices include tax', yesNo(business.pricesIncludeTax)],
    ['Paid by card', ways ? yesNo(ways.card) : ''],
    ['Paid by bank debit', ways ? yesNo(ways.debit ?? false) : ''],
    ['Paid by transfer', ways ? yesNo(ways.transfer) : ''],
    ['Paid in parts', ways ? yesNo(ways.parts) : ''],
  ]);
}

/** Under which names and from which places the business asks, by their ids. */
export const frontSettings = ({ tradingNames, locations }: Fronts): Shown =>
  new Map(
    [
      ...tradingNames.map(
        ({ id, name, email, series, retired }) =>
          [id, `Trading name ${name}`, [name, email, series, retired ? 'not offered' : ''], name] as const,
      ),
      ...locations.map(
        ({ id, name, place, taxNumber, retired }) =>
          [
            id,
            `Location ${name}`,
            [
              name,
              ...place.lines,
              place.postalCode,
              place.city,
              place.region,
              place.country,
              taxNumber,
              retired ? 'not offered' : '',
            ],
            name,
          ] as const,
      ),
    ].map(([id, what, parts]) => [id, { what, text: parts.filter(Boolean).join(', ') }]),
  );

/** What opened card payments. */
export const openingSettings = ({ kind, statementName }: Pick<Business, 'kind' | 'statementName'>): Shown =>
  shown([
    ['Kind of business', businessKind(kind)?.name ?? ''],
    ['Name on card statements', statementName],
  ]);

/** How long gift vouchers are good. */
export const voucherSettings = ({ months, toYearEnd }: VoucherRule): Shown =>
  shown([
    ['Vouchers are good for', months === null ? 'without end' : `${months} months`],
    ['To the end of the year', yesNo(months !== null && toYearEnd)],
  ]);

/** What is agreed with the card processor. */
export const tariffSettings = (tariff: Tariff): Shown =>
  shown(
    tariff.map(({ currency, scheme, percent, fixedMinor }) => [
      `Card fee ${[currency, scheme].filter(Boolean).join(' ')}`,
      tariffText({ percent }, plainSum(BigInt(fixedMinor), currency)),
    ]),
  );

/** How plans are charged. */
export const chargingSettings = (policy: ChargingPolicy): Shown =>
  shown([
    ['Hour of charging', policy.hour],
    ['Tried again after days', policy.retryDays.join(', ')],
    ['Second card', yesNo(policy.secondCard)],
    ['Customer is told of a refusal', yesNo(policy.tellCustomer)],
    ['After the last try', policy.afterwards],
    ['New card asked for, days before', String(policy.expiryDays)],
    ['Plan without a card reminded after days', String(policy.remindDays)],
    ['Plan without a card lapses after days', String(policy.lapseDays)],
    ['Several charges that were missed', policy.missed],
    ['Days off', policy.holidays.map(({ on }) => on).join(', ')],
  ]);

/** Each tax rule that holds, by its id. */
export const taxSettings = (rules: readonly BusinessTax[]): Shown =>
  new Map(
    rules
      .filter(({ retired }) => !retired)
      .map((rule) => {
        const where = [rule.country, ...(rule.regions ?? []), ...(rule.postalCodes ?? [])].filter(Boolean).join(' ');
        const also = [rule.onDelivery ? 'on delivery too' : '', rule.additional ? 'on top of others' : ''];
        const text = [`${rule.name} ${rule.rate} %`, rule.class, where, ...also].filter(Boolean).join(', ');
        return [rule.id, { what: `Tax rule ${rule.name}`, text }];
      }),
  );

/** Whom shares are paid to. */
export const partnerSettings = (partner: { name: string; email: string } | null): Shown =>
  shown(
    partner
      ? [
          ['Name of the partner', partner.name],
          [`E-mail of ${partner.name}`, partner.email],
        ]
      : [],
  );

/** When and from which sum on the business is paid out. */
export const payoutPolicySettings = (policy: PayoutPolicy, locale: string): Shown =>
  shown([
    ['Paid out', whenWords(policy.when, locale)],
    ['What is disputed', DISPUTE_RULE_WORDS[disputeRuleOf(policy)]],
    ...Object.entries(policy.smallest).map(
      ([currency, minor]) => [`Smallest payout ${currency}`, plainSum(BigInt(minor), currency)] as const,
    ),
  ]);
