import { Secret, TOTP } from 'otpauth';
import { expect, test } from 'vitest';
import { handedOver, linkIn } from '../../../tests/support/house-mail';
import { signIn } from '../../../tests/support/signed-in';
import { foundHouse, type House, mailOf, sharedWorkshop } from '../../../tests/support/workshop';
import { agreeToAddress, askNewAddress, keepAddress, lookAtAddressLink, myAddressChange } from './new-address';
import { passwordHash } from './password';
import { acceptInvitation, invite } from './people';
import { actorOf, signIn as signInOrHalf } from './sign-in';
import { addApp, newApp } from './steps/set-up';

const workshop = await sharedWorkshop();
const PASSWORD = 'seven larks and a plane';
const hash = await passwordHash(PASSWORD);
let count = 0;
const newHouse = (): Promise<House> => foundHouse(`House ${++count}`, hash);
const addressOf = (house: House): string => `owner-${house.business.id.slice(0, 8)}@sallow.example`;
const fresh = (): string => `Linnet-${++count}@lark.example`;

/** The links that went to both addresses. */
async function links(house: House, to: string): Promise<[before: string, after: string]> {
  await handedOver(workshop, house.business.id, to);
  const linkTo = async (email: string) => linkIn((await mailOf(workshop.standIns, email))[0]?.text ?? '', 'address');
  return [await linkTo(addressOf(house)), await linkTo(to)];
}

test('an address is changed once both agree, in whichever order, at all desks, and the second step goes along', async () => {
  for (const order of [
    [0, 1],
    [1, 0],
  ] as const) {
    const [house, other] = [await newHouse(), await newHouse()];
    const [before, after] = [addressOf(house), fresh()];
    const { token } = await signIn(before, PASSWORD, 'x');
    const actor = await actorOf(token);
    if (!actor) throw new Error('nobody came in');
    await invite(other.owner, before, 'reader', []);
    const invitation = linkIn((await handedOver(workshop, other.business.id, before))?.text ?? '', 'invitation');
    await acceptInvitation(invitation, { name: '', password: '', session: token }, { address: 'x', agent: '' });
    const made = await newApp(actor);
    const totp = new TOTP({ secret: Secret.fromBase32(made.typed.replaceAll(' ', '')) });
    await addApp(actor, made.seal, totp.generate(), { token, address: 'x' });

    await askNewAddress(actor, after);
    expect(await myAddressChange(actor)).toEqual({ to: after, oldAgreed: false, newAgreed: false });
    const both = await links(house, after);
    expect(await lookAtAddressLink(both[0])).toEqual({ from: before, to: after, which: 'old-address' });
    expect(await agreeToAddress(both[order[0]])).toBe('waits');
    await expect(agreeToAddress(both[order[0]])).rejects.toMatchObject({ code: 'link-over' });
    expect(await signInOrHalf(before, PASSWORD, 'x')).toHaveProperty('half');
    expect(await agreeToAddress(both[order[1]])).toBe('done');
    expect(await myAddressChange(actor)).toBeNull();
    await expect(signInOrHalf(before, PASSWORD, `y${count}`)).rejects.toMatchObject({ code: 'sign-in-failed' });
    expect(await signInOrHalf(after.toLowerCase(), PASSWORD, 'x')).toMatchObject({ ways: ['app', 'recovery'] });
    // Both hear of it, and nobody is signed out.
    await handedOver(workshop, house.business.id, after);
    for (const email of [before, after])
      expect((await mailOf(workshop.standIns, email))[0]?.subject).toBe('The address to sign in with was changed');
    expect(await actorOf(token)).not.toBeNull();
  }
});

test('nobody takes an address that is somebody’s, also where it became so while the links waited', async () => {
  const [house, other] = [await newHouse(), await newHouse()];
  await expect(askNewAddress(house.owner, addressOf(other).toUpperCase())).rejects.toMatchObject({
    code: 'address-signs-in',
  });
  await expect(askNewAddress(house.owner, addressOf(house).toUpperCase())).rejects.toMatchObject({
    code: 'address-same',
  });
  const wanted = fresh();
  await askNewAddress(house.owner, wanted);
  await askNewAddress(other.owner, wanted);
  const first = await links(house, wanted);
  const second = await links(other, wanted);
  expect(await agreeToAddress(first[0])).toBe('waits');
  expect(await agreeToAddress(second[0])).toBe('waits');
  const racing = await Promise.allSettled([agreeToAddress(first[1]), agreeToAddress(second[1])]);
  expect(racing.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  const refused = racing.find(({ status }) => status === 'rejected') as PromiseRejectedResult;
  expect(refused.reason).toMatchObject({ code: 'address-signs-in' });
});

test('a change that is taken back, asked for anew, or older than a day opens nothing', async () => {
  const house = await newHouse();
  const [one, other] = [fresh(), fresh()];
  await askNewAddress(house.owner, one);
  const first = await links(house, one);
  await askNewAddress(house.owner, other);
  await expect(agreeToAddress(first[1])).rejects.toMatchObject({ code: 'link-over' });
  const second = await links(house, other);
  await keepAddress(house.owner);
  expect(await myAddressChange(house.owner)).toBeNull();
  for (const link of [...first, ...second, 'nonsense']) {
    expect(await lookAtAddressLink(link)).toBeNull();
    await expect(agreeToAddress(link)).rejects.toMatchObject({ code: 'link-over' });
  }
});
