import { expect, test } from 'vitest';
import { logPage } from '@/flows/log/log';
import { payAtDesk } from '@/flows/payment/desk-payment';
import { calendarFeed, feedSecret } from '@/flows/plan/calendar-feed';
import { keepTariff } from '@/flows/records/profile';
import { asSuperuser } from '../../../tests/support/database';
import { handedOver, linkIn } from '../../../tests/support/house-mail';
import { signIn } from '../../../tests/support/signed-in';
import { foundHouse, type House, sharedWorkshop } from '../../../tests/support/workshop';
import { changeDesk, foundAnother, myOtherDesks } from './desks';
import { chooseForgotten, lookAtPasswordLink } from './forgotten';
import { passwordHash } from './password';
import {
  acceptInvitation,
  invite,
  inviteAgain,
  leaveBusiness,
  lookAtInvitation,
  peopleView,
  removePerson,
  setRights,
  withdrawInvitation,
} from './people';
import { actorOf, changePassword } from './sign-in';

const workshop = await sharedWorkshop();
const PASSWORD = 'seven larks and a plane';
const hash = await passwordHash(PASSWORD);
let count = 0;
const newHouse = (): Promise<House> => foundHouse(`House ${++count}`, hash);
const addressOf = (house: House): string => `owner-${house.business.id.slice(0, 8)}@sallow.example`;
const fresh = (): string => `linnet-${++count}@lark.example`;
const FROM = { address: '203.0.113.9', agent: '' };
const NEW = { name: 'Linnet Abara', password: 'eight herons on ice', session: '' };

/** The link of the latest invitation to an address. */
async function invitationTo(house: House, email: string): Promise<string> {
  return linkIn((await handedOver(workshop, house.business.id, email))?.text ?? '', 'invitation');
}
async function joined(house: House, email: string, role: 'owner' | 'clerk' | 'reader' = 'clerk', given = NEW) {
  await invite(house.owner, email, role, []);
  const { token } = await acceptInvitation(await invitationTo(house, email), given, FROM);
  const actor = await actorOf(token);
  if (!actor) throw new Error('nobody came in');
  return { token, actor };
}

test('somebody new is invited, joins with a password of their own, and may what the role says and what was ticked', async () => {
  const house = await newHouse();
  const email = fresh();
  await invite(house.owner, email, 'reader', ['take']);
  await expect(invite(house.owner, email.toUpperCase(), 'clerk', [])).rejects.toMatchObject({
    code: 'invited-already',
  });
  await expect(invite(house.owner, addressOf(house), 'clerk', [])).rejects.toMatchObject({ code: 'here-already' });
  await expect(invite(house.clerk, fresh(), 'clerk', [])).rejects.toMatchObject({ code: 'not-allowed' });
  const link = await invitationTo(house, email);
  expect(await lookAtInvitation(link, '')).toMatchObject({
    email,
    who: 'new',
    holds: { role: 'reader', extra: ['take'] },
  });
  await expect(acceptInvitation(link, { ...NEW, name: '' }, FROM)).rejects.toMatchObject({
    fields: [{ field: 'name' }],
  });
  await expect(acceptInvitation(link, { ...NEW, password: '1234567890' }, FROM)).rejects.toMatchObject({
    code: 'password-weak',
  });
  const { token } = await acceptInvitation(link, NEW, FROM);
  const actor = await actorOf(token);
  expect(actor).toMatchObject({ businessId: house.business.id, name: 'Linnet Abara', role: 'reader', extra: ['take'] });
  if (!actor) return;
  // Nothing but looking and taking.
  await expect(keepTariff(actor, [])).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(
    payAtDesk(actor, { customerId: house.customerId, what: 'x', price: '1', attemptKey: crypto.randomUUID() }),
  ).rejects.toMatchObject({ code: 'no-card' });
  await expect(acceptInvitation(link, NEW, FROM)).rejects.toMatchObject({ code: 'link-over' });
  expect((await signIn(email, NEW.password, 'x')).token).toBeTruthy();
  const { entries } = await logPage(house.owner, null);
  expect(entries.map(({ kind }) => kind)).toContain('joined');
  expect(entries.find(({ kind }) => kind === 'invited')?.changes).toMatchObject([{ what: email }]);
});

test('an invitation is withdrawn, sent anew, or over after seven days: then its link opens nothing', async () => {
  const house = await newHouse();
  const [one, other] = [fresh(), fresh()];
  await invite(house.owner, one, 'clerk', []);
  const first = await invitationTo(house, one);
  const [invitation] = (await peopleView(house.owner)).invitations;
  await inviteAgain(house.owner, invitation?.id ?? '');
  const second = await invitationTo(house, one);
  expect(await lookAtInvitation(first, '')).toBeNull();
  expect(await lookAtInvitation(second, '')).not.toBeNull();
  await withdrawInvitation(house.owner, invitation?.id ?? '');
  expect(await lookAtInvitation(second, '')).toBeNull();
  await expect(acceptInvitation(second, NEW, FROM)).rejects.toMatchObject({ code: 'link-over' });
  await invite(house.owner, other, 'clerk', []);
  const late = await invitationTo(house, other);
  await asSuperuser(
    workshop.admin,
    `update invitations set good_until = good_until - interval '8 days' where email = $1`,
    [other],
  );
  expect(await lookAtInvitation(late, '')).toBeNull();
  // Links of other kinds, and altered ones.
  expect(await lookAtPasswordLink(second)).toBeNull();
  expect(await lookAtInvitation(`${late}x`, '')).toBeNull();
});

test('twenty presses at once join once', async () => {
  const house = await newHouse();
  const email = fresh();
  await invite(house.owner, email, 'clerk', []);
  const link = await invitationTo(house, email);
  const presses = await Promise.allSettled(Array.from({ length: 20 }, () => acceptInvitation(link, NEW, FROM)));
  expect(presses.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  expect((await peopleView(house.owner)).people.filter((one) => one.email === email)).toHaveLength(1);
});

test('one person in two businesses: joins by session or password, goes over, and has one password for both', async () => {
  const [here, there] = [await newHouse(), await newHouse()];
  const email = addressOf(here);
  const at = await signIn(email, PASSWORD, 'x');
  await invite(there.owner, email, 'reader', []);
  const link = await invitationTo(there, email);
  expect(await lookAtInvitation(link, '')).toMatchObject({ who: 'known' });
  expect(await lookAtInvitation(link, at.token)).toMatchObject({ who: 'here' });
  await expect(acceptInvitation(link, { ...NEW, password: 'not the right one' }, FROM)).rejects.toMatchObject({
    code: 'sign-in-failed',
  });
  // A session of somebody else is worth nothing.
  const stranger = await signIn(addressOf(await newHouse()), PASSWORD, 'y');
  await expect(acceptInvitation(link, { ...NEW, session: stranger.token, password: '' }, FROM)).rejects.toMatchObject({
    code: 'sign-in-failed',
  });
  const joining = await acceptInvitation(link, { name: '', password: '', session: at.token }, FROM);
  const reader = await actorOf(joining.token);
  expect(reader).toMatchObject({ businessId: there.business.id, role: 'reader', name: here.owner.name });

  // Goes over and back: one session ends as the other begins.
  expect((await myOtherDesks(here.owner)).map(({ business }) => business)).toEqual([there.business.name]);
  const over = await changeDesk(at.token, there.business.id, FROM);
  expect(await actorOf(at.token)).toBeNull();
  expect(await actorOf(over.token)).toMatchObject({ businessId: there.business.id, role: 'reader' });
  const back = await changeDesk(over.token, here.business.id, FROM);
  const owner = await actorOf(back.token);
  expect(owner).toMatchObject({ businessId: here.business.id, role: 'owner' });
  await expect(changeDesk(stranger.token, here.business.id, FROM)).rejects.toMatchObject({ code: 'not-here' });

  // A new password holds in both; sessions of the other end.
  const elsewhere = await signIn(email, PASSWORD, 'z');
  if (owner) await changePassword(owner, { old: PASSWORD, fresh: 'nine wrens on a wire' }, back.token, 'z');
  expect(await actorOf(joining.token)).toBeNull();
  expect(await actorOf(elsewhere.token)).toBeNull();
  await expect(signIn(email, PASSWORD, 'q')).rejects.toMatchObject({ code: 'sign-in-failed' });
  // They come in where they were last.
  const again = await signIn(email, 'nine wrens on a wire', 'q');
  expect(await actorOf(again.token)).toMatchObject({ businessId: here.business.id });

  // Left there, they are still here; and there only is nobody.
  if (reader) await leaveBusiness(reader);
  expect(await myOtherDesks(here.owner)).toEqual([]);
  expect((await signIn(email, 'nine wrens on a wire', 'q')).token).toBeTruthy();
});

test('who leaves is signed out at once, keeps their name, comes in no more, and can be invited again', async () => {
  const house = await newHouse();
  const email = fresh();
  const { token, actor } = await joined(house, email);
  await removePerson(house.owner, actor.personId);
  expect(await actorOf(token)).toBeNull();
  await expect(signIn(email, NEW.password, 'x')).rejects.toMatchObject({ code: 'sign-in-failed' });
  await expect(setRights(house.owner, actor.personId, { role: 'owner', extra: [] })).rejects.toMatchObject({
    code: 'not-here',
  });
  expect((await peopleView(house.owner)).people.at(-1)).toMatchObject({
    name: 'Linnet Abara',
    leftAt: expect.any(Date),
  });
  const again = await joined(house, email, 'reader', { ...NEW, name: 'Linnet Abara-Fell' });
  expect(again.actor).toMatchObject({ personId: actor.personId, name: 'Linnet Abara-Fell', role: 'reader' });
});

test('a business keeps an owner, whoever leaves, is removed, or gives it up, also at once', async () => {
  const house = await newHouse();
  const second = await joined(house, fresh(), 'owner');
  const [one, two] = [house.owner.personId, second.actor.personId];
  const both = await Promise.allSettled([
    removePerson(house.owner, two),
    setRights(second.actor, one, { role: 'clerk', extra: [] }),
  ]);
  expect(both.some(({ status }) => status === 'fulfilled')).toBe(true);
  const owners = (await peopleView(house.owner)).people.filter(({ role, leftAt }) => role === 'owner' && !leftAt);
  expect(owners).toHaveLength(1);
  const [last] = owners;
  const actor = last?.id === one ? house.owner : second.actor;
  await expect(leaveBusiness(actor)).rejects.toMatchObject({ code: 'last-owner' });
  await expect(removePerson(actor, actor.personId)).rejects.toMatchObject({ code: 'last-owner' });
  await expect(setRights(actor, actor.personId, { role: 'reader', extra: [] })).rejects.toMatchObject({
    code: 'last-owner',
  });
});

test('rights hold from the next press on, and every owner is told with old and new', async () => {
  const house = await newHouse();
  const { token, actor } = await joined(house, fresh());
  await setRights(house.owner, actor.personId, { role: 'reader', extra: ['settings'] });
  const now = await actorOf(token);
  expect(now).toMatchObject({ role: 'reader', extra: ['settings'] });
  if (now) await keepTariff(now, []);
  const mail = await handedOver(workshop, house.business.id, addressOf(house));
  expect(mail?.text).toContain('Clerk → Reader, and: Change the business');
  // Another business's people are out of reach.
  const stranger = await newHouse();
  const changes = await Promise.allSettled([
    setRights(stranger.owner, actor.personId, { role: 'owner', extra: [] }),
    removePerson(stranger.owner, actor.personId),
  ]);
  for (const change of changes) expect(change).toMatchObject({ status: 'rejected', reason: { code: 'not-found' } });
  await expect(chooseForgotten('x.y', 'whatever it may be', 'x')).rejects.toMatchObject({ code: 'link-over' });
});

test('who may not see any more what they saw keeps no way to it: their key and the private calendar’s address end', async () => {
  const house = await foundHouse();
  const calendar = async (version: number) =>
    calendarFeed(feedSecret(house.business.id, version)).then(
      () => 'open',
      (error: { code: string }) => error.code,
    );
  expect(await calendar(0)).toBe('open');
  await setRights(house.owner, house.clerk.personId, { role: 'reader', extra: [] });
  expect(await calendar(0)).toBe('open');
  await setRights(house.owner, house.clerk.personId, { role: 'reader', extra: ['no-customers'] });
  expect(await calendar(0)).toBe('not-found');
  expect(await calendar(1)).toBe('open');
  // What was hidden from them hides nothing more.
  await setRights(house.owner, house.clerk.personId, { role: 'packer', extra: [] });
  expect(await calendar(1)).toBe('open');
  await removePerson(house.owner, house.bookkeeper.personId);
  expect(await calendar(1)).toBe('not-found');
});

test('a further business has books of its own, sends at once, and is founded once however often one presses', async () => {
  const house = await newHouse();
  const at = await signIn(addressOf(house), PASSWORD, 'x');
  const asked = {
    key: crypto.randomUUID(),
    business: 'Lark Hire',
    country: 'AT',
    zone: 'Europe/Vienna',
    currency: 'EUR',
    locale: 'de-AT',
  };
  const opened = await foundAnother(at.token, asked, FROM);
  const there = await actorOf(opened.token);
  expect(there).toMatchObject({ role: 'owner', name: house.owner.name });
  expect(there?.businessId).not.toBe(house.business.id);
  if (!there) return;
  await invite(there, fresh(), 'clerk', []);
  expect((await peopleView(house.owner)).invitations).toEqual([]);
  // The same form once more, from where they were.
  const back = await changeDesk(opened.token, house.business.id, FROM);
  const again = await foundAnother(back.token, asked, FROM);
  expect((await actorOf(again.token))?.businessId).toBe(there.businessId);
  expect((await myOtherDesks(house.owner)).map(({ business }) => business)).toEqual(['Lark Hire']);
  await expect(foundAnother(at.token, asked, FROM)).rejects.toMatchObject({ code: 'not-signed-in' });
});
