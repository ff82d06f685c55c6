import { solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { logPage } from '@/flows/log/log';
import { asSuperuser } from '../../../tests/support/database';
import { signIn } from '../../../tests/support/signed-in';
import { foundHouse, type House, openWorkshop, type Workshop } from '../../../tests/support/workshop';
import { demoOffer } from './demo-people';
import { passwordHash } from './password';
import { actorOf, changePassword, isSignedIn, signInWork, signOut } from './sign-in';

const PASSWORD = 'a plane and a saw';
let workshop: Workshop;
let house: House;
let email: string;
beforeAll(async () => {
  workshop = await openWorkshop();
  house = await foundHouse('Sallow Joinery', await passwordHash(PASSWORD));
  email = `owner-${house.business.id.slice(0, 8)}@sallow.example`;
});
afterAll(() => workshop.close());

/** The same person, whenever they last showed who they are. */
const asNow = (actor: object) => ({ ...actor, provedSeconds: expect.any(Number) });

test('the right password opens a session, which ends when it is signed out', async () => {
  const { token } = await signIn(` ${email.toUpperCase()} `, PASSWORD, 'one');
  const actor = await actorOf(token);
  expect(actor).toEqual(asNow(house.owner));
  if (actor) await signOut(actor, token, 'one');
  expect(await actorOf(token)).toBeNull();
});

test('the database keeps neither password nor token', async () => {
  const { token } = await signIn(email, PASSWORD, 'two');
  const rows = await asSuperuser(workshop.admin, `select people::text || sessions::text as text from people, sessions`);
  const text = JSON.stringify(rows);
  expect(text).not.toContain(token);
  expect(text).not.toContain(PASSWORD);
  expect(text).toContain('argon2id');
});

test('a session is over when its time is, by the business’s clock', async () => {
  const { token } = await signIn(email, PASSWORD, 'three');
  const move = (body: object) =>
    fetch(`${workshop.standIns}/clock`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  await move({ advanceDays: 15 });
  expect(await actorOf(token)).toBeNull();
  await move({ real: true });
});

test('a wrong password and an unknown address get the same answer', async () => {
  await expect(signIn(email, 'wrong', 'four')).rejects.toMatchObject({ code: 'sign-in-failed' });
  await expect(signIn('nobody@sallow.example', PASSWORD, 'four')).rejects.toMatchObject({ code: 'sign-in-failed' });
});

/** What a try came to: how often there was which refusal. */
const tried = (whom: string, password: string, address: string, more = {}): Promise<string> =>
  signIn(whom, password, address, more).then(
    () => 'in',
    (error) => String(error.code),
  );

test('eight wrong guesses from one address keep that address out, and nobody else', async () => {
  const guessed = await foundHouse('Guessed', await passwordHash(PASSWORD));
  const whom = `owner-${guessed.business.id.slice(0, 8)}@sallow.example`;
  const answers: string[] = [];
  for (let tries = 0; tries < 9; tries++) answers.push(await tried(whom, 'guess', 'the guesser'));
  expect(answers).toEqual([...Array(8).fill('sign-in-failed'), 'sign-in-too-often']);
  expect(await tried(whom, PASSWORD, 'the guesser')).toBe('sign-in-too-often');
  // From elsewhere a try now costs some work, and the right person comes in with it.
  expect(await tried(whom, PASSWORD, 'the person')).toBe('work-first');
  const challenge = await signInWork(whom);
  const solution = await solveChallenge({ challenge, deriveKey });
  const work = { challenge, ...(solution ? { solution } : {}) };
  expect(await tried('clerk@elsewhere.example', PASSWORD, 'the person', { work })).not.toBe('in');
  expect(await tried(whom, PASSWORD, 'the person', { work })).toBe('in');
  expect(await tried(whom, PASSWORD, 'the person', { work })).toBe('work-first');
});

test('a computer on which the person has signed in before goes through while others guess; it is no other person’s', async () => {
  const mine = await foundHouse('Known', await passwordHash(PASSWORD));
  const whom = `owner-${mine.business.id.slice(0, 8)}@sallow.example`;
  const { device } = await signIn(whom, PASSWORD, 'the desk');
  for (let tries = 0; tries < 30; tries++) await tried(whom, 'guess', `bot ${tries % 5}`);
  expect(await tried(whom, PASSWORD, 'bot 1')).toBe('work-first');
  expect(await tried(whom, PASSWORD, 'bot 1', { device })).toBe('in');
  expect(await tried(whom.replace('owner', 'clerk'), 'guess', 'bot 1', { device })).toBe('sign-in-failed');
  expect(await tried(whom, PASSWORD, 'bot 1', { device: `${device}x` })).toBe('work-first');
});

test('who signed in, who did not, and a new password stand in the log; the log cannot be changed', async () => {
  const mine = await foundHouse('Logged', await passwordHash(PASSWORD));
  const whom = `owner-${mine.business.id.slice(0, 8)}@sallow.example`;
  await tried(whom, 'guess', '203.0.113.9');
  const [one, other] = [await signIn(whom, PASSWORD, '203.0.113.1'), await signIn(whom, PASSWORD, '203.0.113.2')];
  const fresh = 'a longer plane and a saw';
  await expect(changePassword(mine.owner, { old: 'wrong', fresh }, one.token, '203.0.113.1')).rejects.toMatchObject({
    code: 'password-wrong',
  });
  await changePassword(mine.owner, { old: PASSWORD, fresh }, one.token, '203.0.113.1');
  expect(await actorOf(one.token)).toEqual(asNow(mine.owner));
  expect(await actorOf(other.token)).toBeNull();
  expect(await isSignedIn(other.token)).toBe(false);
  expect(await tried(whom, PASSWORD, 'x')).toBe('sign-in-failed');
  expect(await tried(whom, fresh, 'x')).toBe('in');
  const { entries } = await logPage(mine.owner, null);
  expect(entries.map(({ kind }) => kind).sort()).toEqual(
    ['password', 'sign-in-failed', 'sign-in-failed', 'signed-in', 'signed-in', 'signed-in'].sort(),
  );
  expect(entries.find(({ kind, address }) => kind === 'sign-in-failed' && address === '203.0.113.9')).toBeTruthy();
  await expect(logPage(mine.clerk, null)).rejects.toMatchObject({ code: 'not-allowed' });
  for (const change of ['update log_entries set by_name = $$x$$', 'delete from log_entries', 'truncate log_entries']) {
    await expect(asSuperuser(workshop.admin, change)).rejects.toMatchObject({ code: '42501' });
  }
});

test('a session that nobody used for twelve hours has ended, and one in use stays', async () => {
  const mine = await foundHouse('Idle', await passwordHash(PASSWORD));
  const whom = `owner-${mine.business.id.slice(0, 8)}@sallow.example`;
  const { token } = await signIn(whom, PASSWORD, 'idle');
  const unused = (hours: number) =>
    asSuperuser(
      workshop.admin,
      `update sessions set used_at = now() - make_interval(hours => $1) where business_id = $2`,
      [hours, mine.business.id],
    );
  await unused(11);
  expect(await actorOf(token)).toEqual(asNow(mine.owner));
  const [row] = await asSuperuser<{ fresh: boolean }>(
    workshop.admin,
    `select used_at > now() - interval '1 hour' as fresh from sessions where business_id = $1`,
    [mine.business.id],
  );
  expect(row?.fresh).toBe(true);
  await unused(13);
  expect(await actorOf(token)).toBeNull();
});

test('nobody is offered outside the demo', async () => {
  expect(await demoOffer()).toBeNull();
});

test('one password tried on everybody from everywhere costs work in the end; a known computer goes through without', async () => {
  const mine = await foundHouse('Sprayed', await passwordHash(PASSWORD));
  const whom = `owner-${mine.business.id.slice(0, 8)}@sallow.example`;
  const { device } = await signIn(whom, PASSWORD, 'the desk');
  const answers = new Set<string>();
  for (let at = 0; at < 61 && !answers.has('work-first'); at++)
    answers.add(await tried(`somebody-${at}@sallow.example`, 'spring 2026', `bot ${at}`));
  expect([...answers]).toEqual(['sign-in-failed', 'work-first']);
  expect(await tried(whom, PASSWORD, 'the person')).toBe('work-first');
  expect(await tried(whom, PASSWORD, 'the desk', { device })).toBe('in');
});
