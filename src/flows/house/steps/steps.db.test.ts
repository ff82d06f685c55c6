import { Secret, TOTP } from 'otpauth';
import { expect, test, vi } from 'vitest';
import { logPage } from '@/flows/log/log';
import { realClock } from '@/outside/clock';
import { Authenticator } from '../../../../tests/support/authenticator';
import { asSuperuser } from '../../../../tests/support/database';
import { handedOver, linkIn } from '../../../../tests/support/house-mail';
import { setClock } from '../../../../tests/support/plans';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../../tests/support/workshop';
import { accessView, keepAccessRules } from '../access-rules';
import { changeDesk } from '../desks';
import { passwordHash } from '../password';
import { acceptInvitation, invite, lookAtInvitation, peopleView, removePerson } from '../people';
import { actorOf, changePassword, signIn } from '../sign-in';
import { passkeyAsked, signInByPasskey, stepPasskey, takeSecondStep } from './half';
import { askLostSteps, beginLost, keepSteps, lookAtLostLink } from './lost';
import { prove, provePasskey, proveWays } from './prove';
import { addApp, dropPasskey, keepPasskey, mySteps, newApp, newPasskey, newRecoveryCodes, removeApp } from './set-up';

const workshop = await sharedWorkshop();
const PASSWORD = 'seven larks and a plane';
const hash = await passwordHash(PASSWORD);
let count = 0;
const addressOf = (house: House): string => `owner-${house.business.id.slice(0, 8)}@sallow.example`;
const FROM = { address: '203.0.113.9', agent: '' };
const network = (): string => `203.0.113.${++count}`;
const mailTo = (house: House, to = addressOf(house)) => handedOver(workshop, house.business.id, to);

/** All that the owner was written: mails of one moment come in any order. */
async function mailsTo(house: House): Promise<string> {
  await mailTo(house);
  return (await mailOf(workshop.standIns, addressOf(house))).map(({ text }) => text).join();
}

/** Signed in with address and password alone. */
async function session(email: string): Promise<string> {
  const answer = await signIn(email, PASSWORD, network());
  if ('half' in answer) throw new Error('a second step is asked');
  return answer.token;
}
async function half(email: string) {
  const answer = await signIn(email, PASSWORD, network());
  if (!('half' in answer)) throw new Error('no second step is asked');
  return answer;
}
async function who(token: string) {
  const actor = await actorOf(token);
  if (!actor) throw new Error('nobody is signed in');
  return actor;
}

/** Phones and server agree what time it is, and it stands still: a half minute that ends in a test would change its codes. */
const STANDING = new Date('2026-05-04T10:00:10Z');
vi.spyOn(realClock, 'now').mockResolvedValue(STANDING);

/** The app of a phone: codes of now, and of the step after it, which is taken too. */
const phone = (typed: string) => {
  const totp = new TOTP({ secret: Secret.fromBase32(typed.replaceAll(' ', '')) });
  return (later = 0) => totp.generate({ timestamp: STANDING.getTime() + later * 30_000 });
};

/** Sets an app up; its own code is of the step before, so that those of now and after are left. */
async function withApp(house: House) {
  const token = await session(addressOf(house));
  const actor = await who(token);
  const made = await newApp(actor);
  const code = phone(made.typed);
  const codes = await addApp(actor, made.seal, code(-1), { token, address: 'here' });
  return { token, actor, code, codes, typed: made.typed };
}

async function withPasskey(house: House, name = 'Phone') {
  const token = await session(addressOf(house));
  const actor = await who(token);
  const device = new Authenticator();
  const { options, seal } = await newPasskey(actor);
  const codes = await keepPasskey(actor, { seal, response: device.make(options) }, name, { token, address: 'here' });
  return { token, actor, device, codes };
}
const newHouse = (): Promise<House> => foundHouse(`House ${++count}`, hash);

test('an app: its code signs in once, wrong, old and replayed codes do not, and all other sessions end', async () => {
  const house = await newHouse();
  const email = addressOf(house);
  const elsewhere = await session(email);
  const { token, code, codes, actor, typed: key } = await withApp(house);
  expect(codes).toHaveLength(10);
  expect(await actorOf(elsewhere)).toBeNull();
  expect(await actorOf(token)).not.toBeNull();
  expect(await mailsTo(house)).toContain('An authenticator app was set up');
  // Nothing of the key stands in the database.
  const [row] = await asSuperuser<{ key: Buffer }>(
    workshop.admin,
    'select time_key as key from sign_in_steps where email_key = $1',
    [email],
  );
  expect(row?.key.toString('latin1')).not.toContain(
    Buffer.from(Secret.fromBase32(key.replaceAll(' ', '')).bytes).toString('latin1'),
  );

  const asked = await half(email);
  expect(asked.ways).toEqual(['app', 'recovery']);
  const tried = (typed: string) =>
    takeSecondStep(asked.half, { way: 'app', code: typed }, network()).then(
      () => 'in',
      (error: { code: string }) => error.code,
    );
  // That of the setting up, one from an hour ago, and a guess.
  expect(await tried(code(-1))).toBe('code-wrong');
  expect(await tried(code(-120))).toBe('code-wrong');
  expect(await tried('000 000')).toBe('code-wrong');
  const typed = code();
  const answers = await Promise.all([tried(typed), tried(typed), tried(typed)]);
  expect(answers.toSorted()).toEqual(['code-wrong', 'code-wrong', 'in']);
  // Six tries of one half sign-in, and then none.
  expect(await tried(code(1))).toBe('sign-in-too-often');
  expect((await logPage(actor, null)).entries.map(({ kind }) => kind)).toContain('step-failed');
});

test('recovery codes: each once, however they are typed; new ones take the place of those before', async () => {
  const house = await newHouse();
  const { actor, codes, code } = await withApp(house);
  const [first = '', second = ''] = codes;
  const enter = async (typed: string) =>
    takeSecondStep((await half(addressOf(house))).half, { way: 'recovery', code: typed }, network());
  expect(await who((await enter(first.toLowerCase().replace('-', ''))).token)).toMatchObject({ role: 'owner' });
  expect(await mailsTo(house)).toContain('9 of them are left');
  await expect(enter(first)).rejects.toMatchObject({ code: 'recovery-wrong' });
  const fresh = await newRecoveryCodes(actor, 'here');
  await expect(enter(second)).rejects.toMatchObject({ code: 'recovery-wrong' });
  const racing = await Promise.allSettled([enter(fresh[0] ?? ''), enter(fresh[0] ?? '')]);
  expect(racing.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  expect((await mySteps(actor)).steps.codesLeft).toBe(9);
  // Neither a code of another person.
  const other = await newHouse();
  await withApp(other);
  await expect(
    takeSecondStep((await half(addressOf(other))).half, { way: 'recovery', code: fresh[1] ?? '' }, network()),
  ).rejects.toMatchObject({ code: 'recovery-wrong' });
  expect(code()).toMatch(/^\d{6}$/);
});

test('a passkey signs in instead of the password, as the second step, and by nothing that is not whole', async () => {
  const house = await newHouse();
  const { device, actor } = await withPasskey(house);
  // A passkey alone is a second step, for the owner's list as for who has to have one.
  const { people } = await peopleView(house.owner);
  expect(people.filter(({ hasStep }) => hasStep).map(({ id }) => id)).toEqual([house.owner.personId]);
  const alone = async (manner: Parameters<Authenticator['answer']>[1] = {}, seal?: string) => {
    const asked = await passkeyAsked();
    return signInByPasskey({ seal: seal ?? asked.seal, response: device.answer(asked.options, manner) }, network());
  };
  expect(await who((await alone()).token)).toMatchObject({
    personId: house.owner.personId,
    provedSeconds: expect.any(Number),
  });
  for (const manner of [
    { origin: 'https://dahlia.example' },
    { site: 'dahlia.example' },
    { verified: false },
    // Copied: it counts from where the copy was made.
    { counter: 1 },
    { handle: Buffer.alloc(32).toString('base64url') },
  ])
    await expect(alone(manner), JSON.stringify(manner)).rejects.toMatchObject({ code: 'passkey-not-taken' });
  // Asked for another question, and the same answer a second time.
  const another = await passkeyAsked();
  await expect(alone({}, another.seal)).rejects.toMatchObject({ code: 'passkey-not-taken' });
  const asked = await passkeyAsked();
  const answer = { seal: asked.seal, response: device.answer(asked.options) };
  const twice = await Promise.allSettled([signInByPasskey(answer, network()), signInByPasskey(answer, network())]);
  expect(twice.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  // As the second step: one that was asked for something else is not taken.
  const step = await half(addressOf(house));
  expect(step.ways).toEqual(['passkey', 'recovery']);
  const strange = await passkeyAsked();
  await expect(
    takeSecondStep(step.half, { way: 'passkey', seal: strange.seal, response: device.answer(strange.options) }, 'x'),
  ).rejects.toMatchObject({ code: 'passkey-not-taken' });
  const whole = await stepPasskey(step.half);
  const given = { way: 'passkey' as const, seal: whole.seal, response: device.answer(whole.options) };
  const { token: inside } = await takeSecondStep(step.half, given, network());
  // And to show once more who one is, in this session and for nothing else.
  const shown = await provePasskey(await who(inside), inside);
  const proof = { way: 'passkey' as const, seal: shown.seal, response: device.answer(shown.options) };
  await prove(await who(inside), inside, proof, 'x');
  const forSignIn = await passkeyAsked();
  await expect(
    prove(
      await who(inside),
      inside,
      { way: 'passkey', seal: forSignIn.seal, response: device.answer(forSignIn.options) },
      'x',
    ),
  ).rejects.toMatchObject({ code: 'passkey-not-taken' });
  // Nonsense of any form is not taken, and is no error of ours.
  for (const response of [{}, { id: 7 }, { id: 'x', response: null }, { ...answer.response, response: {} }])
    await expect(
      signInByPasskey({ seal: (await passkeyAsked()).seal, response: response as never }, network()),
    ).rejects.toMatchObject({ code: 'passkey-not-taken' });
  // Taken away, it opens nothing; and with the last step the recovery codes go.
  const [key] = (await mySteps(actor)).passkeys;
  await dropPasskey(actor, key?.id ?? '', 'here');
  await expect(alone()).rejects.toMatchObject({ code: 'passkey-not-taken' });
  expect((await mySteps(actor)).steps).toEqual({ hasApp: false, passkeys: 0, codesLeft: 0, lostAt: null });
  expect(await session(addressOf(house))).toBeTruthy();
});

test('a passkey belongs to one person, and is not kept for an answer of somebody else', async () => {
  const [one, other] = [await newHouse(), await newHouse()];
  const { device } = await withPasskey(one);
  const actor = await who(await session(addressOf(other)));
  const asked = await newPasskey(actor);
  await expect(
    keepPasskey(actor, { seal: asked.seal, response: device.make(asked.options) }, 'Stolen', {
      token: '',
      address: '',
    }),
  ).rejects.toMatchObject({ code: 'passkey-not-taken' });
  const mine = await newPasskey(one.owner);
  await expect(
    keepPasskey(actor, { seal: mine.seal, response: new Authenticator().make(mine.options) }, 'x', {
      token: '',
      address: '',
    }),
  ).rejects.toMatchObject({ code: 'passkey-not-taken' });
});

test('asked again: after five minutes, by the second step where there is one, for what cannot be taken back alone', async () => {
  const house = await newHouse();
  const email = addressOf(house);
  const token = await session(email);
  const stale = async () => {
    await asSuperuser(
      workshop.admin,
      `update sessions set proved_at = now() - interval '301 seconds' where business_id = $1`,
      [house.business.id],
    );
    return who(token);
  };
  const actor = await stale();
  await expect(invite(actor, 'a@b.example', 'clerk', [])).rejects.toMatchObject({ code: 'prove-again' });
  await expect(removePerson(actor, house.clerk.personId)).rejects.toMatchObject({ code: 'prove-again' });
  expect((await peopleView(actor)).people.length).toBeGreaterThan(3);
  expect(await proveWays(actor)).toEqual(['password']);
  await expect(prove(actor, token, { way: 'password', code: 'not it' }, 'x')).rejects.toMatchObject({
    code: 'password-wrong',
  });
  await prove(actor, token, { way: 'password', code: PASSWORD }, 'x');
  await invite(await who(token), 'a@b.example', 'clerk', []);

  const made = await newApp(await who(token));
  const code = phone(made.typed);
  await addApp(await who(token), made.seal, code(-1), { token, address: 'x' });
  const again = await stale();
  // The password that somebody looked at over a shoulder is not enough any more.
  await expect(prove(again, token, { way: 'password', code: PASSWORD }, 'x')).rejects.toMatchObject({
    code: 'password-wrong',
  });
  await prove(again, token, { way: 'app', code: code() }, 'x');
  await expect(prove(await stale(), token, { way: 'app', code: code() }, 'x')).rejects.toMatchObject({
    code: 'code-wrong',
  });
  // Nobody guesses on for ever, and nobody but this session is kept out by it.
  let refusal = '';
  for (let tries = 0; tries < 9; tries++)
    refusal = await prove(await who(token), token, { way: 'app', code: '000000' }, 'x').then(
      () => '',
      (error: { code: string }) => error.code,
    );
  expect(refusal).toBe('sign-in-too-often');
  const elsewhere = await takeSecondStep((await half(email)).half, { way: 'app', code: code(1) }, network());
  expect(await who(elsewhere.token)).toMatchObject({ provedSeconds: expect.any(Number) });
});

test('the owner asks it of everybody: who has none can do nothing but set one up', async () => {
  const house = await newHouse();
  const rules = { stepRequired: true, aboveMinor: 10_000n };
  const clerk = `clerk-${house.business.id.slice(0, 8)}@sallow.example`;
  const clerkToken = await session(clerk);
  await expect(keepAccessRules(house.owner, rules)).rejects.toMatchObject({ code: 'step-own-first' });
  await expect(keepAccessRules(house.clerk, rules)).rejects.toMatchObject({ code: 'not-allowed' });
  const { actor, codes } = await withApp(house);
  await keepAccessRules(actor, rules);
  expect(await accessView(actor)).toEqual({ ...rules, currency: 'USD' });
  expect(await mailsTo(house)).toContain('A second step when signing in is asked of everybody: no → yes');
  await expect(removeApp(actor, 'x')).rejects.toMatchObject({ code: 'step-needed' });
  expect((await mySteps(actor)).steps).toMatchObject({ hasApp: true, codesLeft: codes.length });

  const bare = await who(clerkToken);
  expect(bare.lacksStep).toBe(true);
  await expect(accessView(bare)).rejects.toMatchObject({ code: 'step-first' });
  const made = await newApp(bare);
  await addApp(bare, made.seal, phone(made.typed)(-1), { token: clerkToken, address: 'x' });
  expect(await who(clerkToken)).toMatchObject({ lacksStep: false });
  const { people } = await peopleView(actor);
  expect(
    people
      .filter(({ hasStep }) => hasStep)
      .map(({ role }) => role)
      .toSorted(),
  ).toEqual(['clerk', 'owner']);
});

test('one person at two desks has one second step; a session that goes over stays as old as it is', async () => {
  const [one, other] = [await newHouse(), await newHouse()];
  const email = addressOf(one);
  await invite(other.owner, email, 'clerk', []);
  const link = linkIn((await mailTo(other, email))?.text ?? '', 'invitation');
  const { token, codes } = await withApp(one);
  // With a second step the password alone lets nobody in by an invitation.
  expect(await lookAtInvitation(link, '')).toMatchObject({ who: 'known', signsInFirst: true });
  await expect(acceptInvitation(link, { name: '', password: PASSWORD, session: '' }, FROM)).rejects.toMatchObject({
    code: 'sign-in-first',
  });
  const there = await acceptInvitation(link, { name: '', password: '', session: token }, FROM);
  expect((await mySteps(await who(there.token))).steps).toMatchObject({ hasApp: true, codesLeft: codes.length });
  await asSuperuser(
    workshop.admin,
    `update sessions set proved_at = now() - interval '1 hour' where business_id = $1`,
    [other.business.id],
  );
  const back = await changeDesk(there.token, one.business.id, FROM);
  expect((await who(back.token)).provedSeconds).toBeGreaterThan(3000);
  // The owner of the other business ends their time there; the step stays at the first.
  await removePerson(other.owner, (await who(token)).personId).catch(() => undefined);
  expect((await mySteps(await who(back.token))).steps.hasApp).toBe(true);
  // No operation of the other business reads or changes what is not of its people.
  const [gone] = await asSuperuser<{ n: number }>(
    workshop.admin,
    'select count(*)::int as n from sign_in_steps where email_key = $1',
    [email],
  );
  expect(gone?.n).toBe(1);
});

test('with the last desk of an address its second step goes: who has the address later is somebody else', async () => {
  const house = await newHouse();
  const clerk = `clerk-${house.business.id.slice(0, 8)}@sallow.example`;
  const token = await session(clerk);
  const actor = await who(token);
  const made = await newApp(actor);
  await addApp(actor, made.seal, phone(made.typed)(-1), { token, address: 'x' });
  await removePerson(house.owner, actor.personId);
  const left = await asSuperuser(workshop.admin, 'select 1 from sign_in_steps where email_key = $1', [clerk]);
  expect(left).toEqual([]);
});

test('a half sign-in ends with the password it was begun by, and in ten minutes', async () => {
  const house = await newHouse();
  const email = addressOf(house);
  const { token, actor, codes } = await withApp(house);
  const begun = await half(email);
  await changePassword(actor, { old: PASSWORD, fresh: 'nine herons on the ice' }, token, 'x');
  await expect(takeSecondStep(begun.half, { way: 'recovery', code: codes[0] ?? '' }, network())).rejects.toMatchObject({
    code: 'half-over',
  });
  await expect(takeSecondStep('nonsense', { way: 'recovery', code: codes[0] ?? '' }, network())).rejects.toMatchObject({
    code: 'half-over',
  });
});

test('wrong codes are told to whose password is known, and keep nobody out who has another way', async () => {
  const house = await newHouse();
  const email = addressOf(house);
  const { codes, code } = await withApp(house);
  let refusal = '';
  for (let tries = 0; tries < 62; tries++) {
    const { half: begun } = await half(email);
    refusal = await takeSecondStep(begun, { way: 'app', code: '000000' }, network()).then(
      () => 'in',
      (error: { code: string }) => error.code,
    );
  }
  expect(refusal).toBe('codes-spent');
  expect(await mailsTo(house)).toContain('Nobody came in');
  const { half: begun } = await half(email);
  await expect(takeSecondStep(begun, { way: 'app', code: code() }, network())).rejects.toMatchObject({
    code: 'codes-spent',
  });
  expect((await takeSecondStep(begun, { way: 'recovery', code: codes[0] ?? '' }, network())).token).toBeTruthy();
}, 120_000);

test('who lost everything waits three days, in which it can be stopped; then the password is enough', async () => {
  const house = await newHouse();
  const email = addressOf(house);
  const { actor, codes } = await withApp(house);
  const lose = async () => {
    await askLostSteps((await half(email)).half);
    const link = linkIn(await mailsTo(house), 'lost');
    expect(await lookAtLostLink(link)).toMatchObject({ email });
    const until = await beginLost(link, 'x');
    await expect(beginLost(link, 'x')).rejects.toMatchObject({ code: 'link-over' });
    return until;
  };
  await lose();
  expect(await mailsTo(house)).toContain('then your password alone is enough');
  await keepSteps(actor, 'x');
  expect((await mySteps(actor)).steps.lostAt).toBeNull();
  // Whoever takes the step has not lost it.
  await lose();
  await takeSecondStep((await half(email)).half, { way: 'recovery', code: codes[0] ?? '' }, network());
  expect((await mySteps(actor)).steps.lostAt).toBeNull();
  const until = await lose();
  await setClock(workshop.standIns, new Date(until.getTime() - 60_000));
  expect(await half(email)).toBeTruthy();
  await setClock(workshop.standIns, until);
  expect(await session(email)).toBeTruthy();
  expect(await mailsTo(house)).toContain('taken off');
});
