import { randomUUID } from 'node:crypto';
import { verify } from '@node-rs/argon2';
import type { Challenge } from 'altcha-lib';
import { type FirstSetting, guessedSetting } from '@/core/beginning/first-setting';
import { countAttempt, type Limit } from '@/db/limits';
import { type Person, passwordHashOf, personByEmail, signInCandidates } from '@/db/people';
import { idFor } from '@/flows/door/id-for';
import { anybody, type House } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { isFreshWork, setWork, type Work } from '@/flows/door/work';
import { countryList, guessing } from '@/outside/places';
import { deviceSeal } from './enter';
import { foundBusiness, newBusiness } from './found-business';
import { queueProof, requireFewMails } from './mail-proof';
import { passwordHash, requireGoodPassword } from './password';
import { type From, type OpenedSession, openSession } from './session';

/** Businesses from one network address, and for one mail address: many people may sit behind the first. */
const PER_NETWORK: Limit = { name: 'sign-up-network', attempts: 20, seconds: 3600 };
const PER_ADDRESS: Limit = { name: 'sign-up-address', attempts: 4, seconds: 86_400 };
const WORK_SUBJECT = 'sign-up';
/** A blink of a computer's time for one, an hour of it for ten thousand. */
const WORK_PREFIX = '00';

/** What a stranger says to begin. */
export type SignUp = FirstSetting & {
  /** Made by the page for one form: the same press twice founds one business. */
  readonly key: string;
  readonly name: string;
  readonly business: string;
  readonly email: string;
  readonly password: string;
  readonly work?: Partial<Work> | undefined;
};

/** The work before somebody signs up. */
export const signUpWork = anybody({ tells: false }).run(
  async (): Promise<Challenge> => setWork(WORK_SUBJECT, WORK_PREFIX),
);

/** Where a browser seems to stand. @param languages as its header `Accept-Language` or its settings say */
export const settingGuess = anybody({ tells: false }).run(
  async (_house, zone: string, languages: readonly string[]): Promise<FirstSetting> =>
    guessedSetting(zone, languages, guessing),
);

/** What the page for beginning shows at first: where its reader seems to be, and all countries to choose from. */
export const beginning = anybody({ tells: false }).run(
  async (
    _house,
    acceptLanguage: string,
  ): Promise<{ first: FirstSetting; countries: { code: string; name: string }[] }> => ({
    first: guessedSetting(
      '',
      acceptLanguage.split(',').map((one) => one.split(';')[0]?.trim() ?? ''),
      guessing,
    ),
    countries: countryList('en'),
  }),
);

/**
 * Founds a business for a stranger and signs them in: they write at once, and send when their address is confirmed. The address is
 * nobody's until then, so that nobody can take another's by being first.
 *
 * @returns the session, what this computer carries from now on, and the half-written invoice
 * @throws Refusal `address-signs-in`, `password-weak`, `sign-up-too-often`, `not-a-robot`
 */
export const signUp = anybody({ tells: false }).run(
  async (
    house,
    asked: SignUp,
    from: From,
  ): Promise<OpenedSession & { readonly device: string; readonly invoiceId: string | null }> => {
    const businessId = idFor(`sign-up ${asked.key}`);
    const again = await sameAgain(house, businessId, asked);
    if (again) return enter(house, businessId, again, from, null);
    await requireGoodPassword('password', asked.password, [asked.email, asked.name, asked.business]);
    const holders = await house.outside((db) => signInCandidates(db, asked.email));
    if (holders.some(({ confirmed }) => confirmed)) {
      throw Refusal.at('email', 'address-signs-in');
    }
    if (!(await isFreshWork(WORK_SUBJECT, asked.work ?? {}))) throw new Refusal('not-a-robot');
    const waits = await Promise.all([
      countAttempt(PER_NETWORK, from.address),
      countAttempt(PER_ADDRESS, asked.email.toLowerCase()),
    ]);
    if (waits.some((seconds) => seconds > 0)) throw new Refusal('sign-up-too-often');
    const person = { id: randomUUID(), name: asked.name, email: asked.email };
    const hash = await passwordHash(asked.password);
    await requireFewMails(person.id, person.email);
    const invoiceId = await house.within(businessId, { name: person.name, personId: person.id }).write(async (tx) => {
      const owner = { ...person, passwordHash: hash };
      const invoice = await foundBusiness(tx, newBusiness(businessId, asked, tx.now), owner, from.address);
      await queueProof(tx, 'confirm', { personId: person.id, email: person.email });
      return invoice;
    });
    return enter(house, businessId, person, from, invoiceId);
  },
);

/** Who began with this very form before, where the answer did not reach them; null where nobody did. */
async function sameAgain(house: House, businessId: string, asked: SignUp): Promise<Person | null> {
  const before = await house.within(businessId).read((db) => personByEmail(db, asked.email));
  if (!before) return null;
  const hash = await house.within(businessId).read((db) => passwordHashOf(db, before.id));
  if (!hash || !(await verify(hash, asked.password))) throw new Refusal('address-signs-in');
  return before;
}

async function enter(
  house: House,
  businessId: string,
  person: Person,
  from: From,
  invoiceId: string | null,
): Promise<OpenedSession & { readonly device: string; readonly invoiceId: string | null }> {
  const session = await house.within(businessId).write((tx) => openSession(tx, person.id, from));
  return { ...session, device: deviceSeal(person.email, null, house.now), invoiceId };
}
