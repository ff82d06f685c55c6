/** Parcel profiles, the rules that choose them, and how the business delivers. */
import { randomUUID } from 'node:crypto';
import { type Business, homePlace } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import type { Item } from '@/core/item/item';
import type { DeliverSettings } from '@/core/parcel/notice';
import { nextMailDay } from '@/core/parcel/notice';
import { declared } from '@/core/parcel/packed';
import {
  insuredMinor,
  MOST_PROFILES,
  type ParcelProfile,
  type ParcelRule,
  profileFor,
  profileProblems,
  type RuleCase,
} from '@/core/parcel/profile';
import { cheapestFirst, type RateAnswer } from '@/core/parcel/service';
import { NO_ADDRESS } from '@/core/place/address';
import { businessById } from '@/db/businesses';
import { itemsById } from '@/db/items';
import {
  archiveParcelProfile,
  deliverSettings,
  keepParcelProfile,
  parcelProfiles,
  parcelRules,
  replaceParcelRules,
  updateDeliverSettings,
} from '@/db/parcel-profiles';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { services } from '@/outside/services';
import { leavesFrom } from './packing-setting';

export type ProfilesDesk = {
  readonly business: Business;
  readonly profiles: readonly ParcelProfile[];
  readonly rules: readonly ParcelRule[];
  readonly items: readonly Item[];
  readonly settings: DeliverSettings;
};

/** The profiles with their rules, and the items that rules name. */
export const profilesDesk = desk('see').read(async (db): Promise<ProfilesDesk> => {
  const rules = await parcelRules(db);
  const ids = [...new Set(rules.flatMap(({ itemIds }) => itemIds))];
  return {
    business: await businessById(db),
    profiles: await parcelProfiles(db),
    rules,
    items: ids.length > 0 ? await itemsById(db, ids) : [],
    settings: await deliverSettings(db),
  };
});

/** Items that a rule is to name. */
export const itemsNamed = desk('see').read((db, ids: readonly string[]): Promise<Item[]> => itemsById(db, ids));

/** Keeps a profile, new or changed. Returns its id. @throws Refusal `paper-not-ready` with the places, `profiles-enough` */
export const keepProfile = desk('records').write(
  async (tx, id: string | null, fields: Omit<ParcelProfile, 'id'>): Promise<string> => {
    const profile = { ...fields, id: id ?? randomUUID() };
    const problems = profileProblems(profile);
    if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
    if (id === null && (await parcelProfiles(tx)).length >= MOST_PROFILES) throw new Refusal('profiles-enough');
    await keepParcelProfile(tx, profile);
    return profile.id;
  },
);

/** Takes a profile off the list; parcels that were packed with it keep what they say. @throws Refusal `profile-in-use`, `not-found` */
export const removeProfile = desk('records').write(async (tx, id: string): Promise<void> => {
  if ((await parcelRules(tx)).some(({ profileId }) => profileId === id)) throw new Refusal('profile-in-use');
  if ((await archiveParcelProfile(tx, id)) === 0) throw new Refusal('not-found');
});

/** Keeps the rules, in the order in which they are tried. @throws Refusal `not-found` for one of no profile */
export const keepRules = desk('records').turn(async (tx, rules: readonly ParcelRule[]): Promise<void> => {
  const known = new Set((await parcelProfiles(tx)).map(({ id }) => id));
  if (rules.some(({ profileId }) => !known.has(profileId))) throw new Refusal('not-found');
  await replaceParcelRules(tx, rules);
});

/** Keeps how the business delivers. */
export const keepDelivering = desk('records').write(async (tx, settings: DeliverSettings): Promise<void> => {
  await updateDeliverSettings(tx, settings);
});

/** The services that the carrier has, by code and name; null where it does not answer. */
export const carrierServices = desk('see').run(
  async (ctx): Promise<readonly { readonly code: string; readonly name: string }[] | null> => {
    const business = await ctx.read((db) => businessById(db));
    const from = leavesFrom(business);
    const size = { grams: 100, lengthMm: 100, widthMm: 100, heightMm: 20 };
    const mailOn = dateInZone(ctx.now, business.zone);
    const asked = { ...size, name: 'Example', from, to: from, insuredMinor: 0, signature: false, mailOn };
    const [answer] = (await services().carrier.rates(business.currency, [asked])) ?? [];
    return answer ? [...answer.rates, ...answer.refused].map(({ service, name }) => ({ code: service, name })) : null;
  },
);

/** What rules make of a typed example, and what the carrier asks for it; `answer` null where it does not answer. */
export type TriedRules = {
  readonly profile: string;
  readonly ruleAt: number | null;
  readonly answer: RateAnswer | null;
};

/** Tries rules out on a typed example, as they stand on the screen, saved or not. */
export const tryRules = desk('see').run(
  async (
    ctx,
    rules: readonly ParcelRule[],
    example: Omit<RuleCase, 'packed'> & {
      readonly grams: number;
      readonly itemIds: readonly string[];
      readonly postalCode: string;
    },
  ): Promise<TriedRules> => {
    const { business, profiles, settings } = await ctx.read(async (db) => ({
      business: await businessById(db),
      profiles: await parcelProfiles(db),
      settings: await deliverSettings(db),
    }));
    const nothing = { lengthMm: 0, widthMm: 0, heightMm: 0 };
    const things = example.itemIds.length > 0 ? example.itemIds : [null];
    const packed = things.map((itemId, at) => ({
      itemId,
      quantity: '1',
      one: { ...nothing, grams: at === 0 ? example.grams : 0 },
    }));
    const { profile, rule } = profileFor({ ...example, packed }, rules, profiles, homePlace(business).country);
    if (!profile) return { profile: '', ruleAt: null, answer: null };
    const to = { ...NO_ADDRESS, lines: ['1 Example Street'], postalCode: example.postalCode, country: example.country };
    const customs = declared(
      {
        currency: business.currency,
        customs: null,
        lines: [
          {
            what: 'Example',
            itemId: null,
            optionId: null,
            quantity: '1',
            valueMinor: example.valueMinor,
            customs: null,
          },
        ],
      },
      { from: leavesFrom(business), to },
      { items: new Map(), customsReference: '' },
    );
    const answers = await services().carrier.rates(business.currency, [
      {
        name: 'Example',
        from: leavesFrom(business),
        to,
        grams: Math.max(1, example.grams + profile.ownGrams),
        lengthMm: profile.lengthMm,
        widthMm: profile.widthMm,
        heightMm: profile.heightMm,
        insuredMinor: Number(insuredMinor(profile.insuring, example.valueMinor)),
        signature: profile.signature,
        mailOn: nextMailDay(dateInZone(ctx.now, business.zone), settings.mailDays),
        ...(customs ? { customs } : {}),
      },
    ]);
    const answer = answers?.[0] ?? null;
    return {
      profile: profile.name,
      ruleAt: rule ? rules.findIndex(({ id }) => id === rule.id) : null,
      answer: answer && { ...answer, rates: cheapestFirst(answer.rates) },
    };
  },
);
