import sharp from 'sharp';
import { expect, test } from 'vitest';
import type { Member } from '@/core/identity/identity';
import { businessById } from '@/db/businesses';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { logPage } from '@/flows/log/log';
import { payOutDue, payOutNow } from '@/flows/payout/pay-out-due';
import { asSuperuser } from '../../../tests/support/database';
import { handedOver } from '../../../tests/support/house-mail';
import { setClock } from '../../../tests/support/plans';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { identityPicture, identityView, keepMembers, sendIdentity, showPicture } from './identity';

const workshop = await sharedWorkshop();
const HOUR = 3_600_000;
const START = new Date('2026-06-01T09:00:00Z').getTime();
let clock = START;
const moveTo = async (at: number): Promise<void> => {
  clock = at;
  await setClock(workshop.standIns, new Date(at));
};
await moveTo(START);

const picture = (shade: number): Promise<Buffer> =>
  sharp({ create: { width: 90, height: 60, channels: 3, background: { r: shade, g: 90, b: 30 } } })
    .withExif({ IFD0: { Artist: 'Somebody at 3 Mill Yard' } })
    .jpeg()
    .toBuffer();

/** A house of which nobody knows who stands behind it. */
async function newHouse(): Promise<House> {
  const house = await foundHouse();
  await asSuperuser(workshop.admin, 'update businesses set verified_at = null where business_id = $1', [
    house.business.id,
  ]);
  return house;
}
const member = (name: string, more: Partial<Member> = {}): Member => ({
  id: crypto.randomUUID(),
  name,
  born: '1980-05-01',
  country: 'US',
  position: 'Owner',
  share: 60,
  acts: true,
  ...more,
});

/** Tells and shows everything of these. */
async function shown(house: House, ...members: Member[]): Promise<void> {
  expect(await keepMembers(house.owner, members)).toEqual([]);
  for (const { id, acts } of members) {
    await showPicture(house.owner, id, 'front', await picture(10));
    if (acts) await showPicture(house.owner, id, 'live', await picture(20));
  }
}
/** A minute later: the clock goes on while a test runs. */
const soon = (): Date => new Date(clock + 60_000);
/** What the worker does, at the moment that it is by now. */
const work = (house: House): Promise<void> => payOutDue(programContext(house.business.id, soon()));
const state = async (house: House) => (await identityView(house.owner)).check?.state;
const dueNow = async (house: House) =>
  (
    await asSuperuser<{ concern: string }>(workshop.admin, 'select concern from due_work($1) where business_id = $2', [
      soon(),
      house.business.id,
    ])
  ).some(({ concern }) => concern === 'payouts');
const ownerMail = async (house: House) =>
  (await handedOver(workshop, house.business.id, `owner-${house.business.id.slice(0, 8)}@sallow.example`))?.text ?? '';

test('told, shown, sent once, accepted after its time: then payouts are open, and the pictures go', async () => {
  const house = await newHouse();
  const [ada, bram] = [member('Ada Thistlewood'), member('Bram Quillon', { acts: false, share: 30, position: '' })];
  await expect(payOutNow(house.owner)).rejects.toMatchObject({ code: 'identity-first' });
  await expect(sendIdentity(house.owner)).rejects.toMatchObject({ code: 'identity-not-whole' });
  await shown(house, ada, bram);
  // What was taken away of the picture's own words, and what stands in the database.
  const bytes = await identityPicture(house.owner, ada.id, 'front');
  expect((await sharp(bytes).metadata()).exif).toBeUndefined();
  const rows = await asSuperuser<{ sealed: Buffer }>(
    workshop.admin,
    'select sealed from identity_pictures where business_id = $1',
    [house.business.id],
  );
  expect(rows).toHaveLength(3);
  for (const { sealed } of rows) {
    expect(sealed.subarray(0, 3)).not.toEqual(Buffer.from([0xff, 0xd8, 0xff]));
    expect(sealed.includes(bytes.subarray(200, 260))).toBe(false);
  }
  await Promise.all(Array.from({ length: 20 }, () => sendIdentity(house.owner)));
  const [{ n } = { n: 0 }] = await asSuperuser<{ n: number }>(
    workshop.admin,
    'select count(*)::int as n from identity_checks where business_id = $1',
    [house.business.id],
  );
  expect(n).toBe(1);
  expect(await dueNow(house)).toBe(true);
  await Promise.all([work(house), work(house)]);
  expect(await state(house)).toBe('checking');
  expect(await dueNow(house)).toBe(false);
  await expect(keepMembers(house.owner, [ada])).rejects.toMatchObject({ code: 'identity-closed' });
  await expect(showPicture(house.owner, ada.id, 'front', await picture(1))).rejects.toMatchObject({
    code: 'identity-closed',
  });
  await moveTo(clock + 27 * HOUR);
  expect(await dueNow(house)).toBe(true);
  await work(house);
  expect(await state(house)).toBe('accepted');
  expect(await ownerMail(house)).toContain('Payouts are open');
  await expect(payOutNow(house.owner)).rejects.not.toMatchObject({ code: 'identity-first' });
  const kinds = (await logPage(house.owner, null)).entries.map(({ kind }) => kind);
  expect(kinds).toEqual(expect.arrayContaining(['identity', 'identity-seen']));
  // Pictures stay thirty days, and not one longer.
  await moveTo(clock + 29 * 24 * HOUR);
  await work(house);
  expect((await identityView(house.owner)).pictures).toHaveLength(3);
  await moveTo(clock + 24 * HOUR);
  await work(house);
  const view = await identityView(house.owner);
  expect(view.pictures).toEqual([]);
  expect(view.check?.state).toBe('accepted');
  expect(await dueNow(house)).toBe(false);
  await expect(identityPicture(house.owner, ada.id, 'front')).rejects.toMatchObject({ code: 'not-found' });
});

test('what is asked anew is corrected and sent again; what is refused says why, and opens nothing', async () => {
  const house = await newHouse();
  const blurred = member('Ada Blur Thistlewood');
  await shown(house, blurred);
  await sendIdentity(house.owner);
  await work(house);
  await moveTo(clock + 6 * HOUR);
  await work(house);
  expect(await identityView(house.owner)).toMatchObject({
    check: { state: 'asked', reason: 'picture-unclear' },
    verifiedAt: null,
  });
  expect(await ownerMail(house)).toContain('all four corners');
  await keepMembers(house.owner, [{ ...blurred, name: 'Ada Double Thistlewood' }]);
  // Pictures of who stays are there still.
  expect((await identityView(house.owner)).missing).toEqual([]);
  await sendIdentity(house.owner);
  await work(house);
  await moveTo(clock + 31 * HOUR);
  await work(house);
  expect(await identityView(house.owner)).toMatchObject({ check: { state: 'refused', reason: 'not-the-same' } });
  expect(await ownerMail(house)).toContain('not that of the document');
  await expect(payOutNow(house.owner)).rejects.toMatchObject({ code: 'identity-first' });
  await keepMembers(house.owner, [{ ...blurred, name: 'Ada Thistlewood' }]);
  await sendIdentity(house.owner);
  await work(house);
  await moveTo(clock + 27 * HOUR);
  await work(house);
  const business = await readBusiness({ businessId: house.business.id, now: new Date(clock) }, businessById);
  expect(business.verifiedAt).not.toBeNull();
});

test('an office that does not answer is asked again, and has one check however often it is', async () => {
  const house = await newHouse();
  await shown(house, member('Ada Thistlewood'));
  await sendIdentity(house.owner);
  const real = process.env.IDENTITY_API_KEY;
  const kept = globalThis as { dahliaServices?: unknown };
  process.env.IDENTITY_API_KEY = 'not the key';
  kept.dahliaServices = undefined;
  await work(house);
  expect(await state(house)).toBe('checking');
  expect(await dueNow(house)).toBe(false);
  process.env.IDENTITY_API_KEY = real;
  kept.dahliaServices = undefined;
  await moveTo(clock + HOUR);
  expect(await dueNow(house)).toBe(true);
  await Promise.all([work(house), work(house), work(house)]);
  const page = await (await fetch(`${workshop.standIns}/identity`)).text();
  expect(page.split('Ada Thistlewood: checking')).toHaveLength(2);
});

test('owners alone see it; what is no picture is not taken; another business opens nothing', async () => {
  const [house, other] = [await newHouse(), await newHouse()];
  const ada = member('Ada Thistlewood');
  await shown(house, ada);
  for (const actor of [house.bookkeeper, house.clerk, house.reader])
    await expect(identityPicture(actor, ada.id, 'front')).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(identityPicture(other.owner, ada.id, 'front')).rejects.toMatchObject({ code: 'not-found' });
  await expect(showPicture(other.owner, ada.id, 'front', await picture(3))).rejects.toMatchObject({
    code: 'not-found',
  });
  for (const bytes of [Buffer.alloc(0), Buffer.from('%PDF-1.7'), Buffer.from([0xff, 0xd8, 0xff, 1, 2, 3])])
    await expect(showPicture(house.owner, ada.id, 'front', bytes)).rejects.toMatchObject({ code: 'file-not-taken' });
  // A sealed picture that is moved to somebody else does not open.
  await asSuperuser(
    workshop.admin,
    `update identity_pictures set side = 'back' where business_id = $1 and side = 'front'`,
    [house.business.id],
  );
  await expect(identityPicture(house.owner, ada.id, 'back')).rejects.toThrow();
  // A name that another business holds as its member's stays there.
  await keepMembers(other.owner, [ada]);
  expect((await identityView(house.owner)).members).toHaveLength(1);
  expect((await mailOf(workshop.standIns, 'nobody@x.example')).length).toBe(0);
});
