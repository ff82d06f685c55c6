import { afterAll, beforeAll, expect, test } from 'vitest';
import { asSuperuser } from '../../../tests/support/database';
import { foundHouse, type House, openWorkshop, type Workshop } from '../../../tests/support/workshop';
import { demoOffer } from './demo-people';
import { actorOf, passwordHash, signIn, signOut } from './sign-in';

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

test('the right password opens a session, which ends when it is signed out', async () => {
  const { token } = await signIn(` ${email.toUpperCase()} `, PASSWORD, 'one');
  const actor = await actorOf(token);
  expect(actor).toEqual(house.owner);
  if (actor) await signOut(actor, token);
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

test('after eight tries for one person even the right password waits', async () => {
  const victim = email.replace('owner', 'clerk');
  const answers: string[] = [];
  for (let tries = 0; tries < 9; tries++)
    answers.push(await signIn(victim, 'guess', `bot ${tries}`).catch((error) => error.code));
  expect(answers.slice(0, 8)).toEqual(Array(8).fill('sign-in-failed'));
  expect(answers[8]).toBe('sign-in-too-often');
  await expect(signIn(victim, PASSWORD, 'the person')).rejects.toMatchObject({ code: 'sign-in-too-often' });
});

test('nobody is offered outside the demo', async () => {
  expect(await demoOffer()).toBeNull();
});
