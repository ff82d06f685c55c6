/** Two people in one business, and one person in two. */
import { expect, test } from 'vitest';
import { passwordHash } from '@/flows/house/password';
import { sharedOwnerDesk } from '../support/owner-desk';
import {
  choose,
  expectAccessible,
  openPage,
  pick,
  press,
  pressHeard,
  shown,
  type,
  untilShown,
  untilTrue,
  visit,
} from '../support/person';
import { until } from '../support/until';
import { foundHouse, mailOf } from '../support/workshop';

const { stack, house, page, errors, browser } = await sharedOwnerDesk();

async function invitationTo(email: string): Promise<string> {
  let link = '';
  await until('the invitation', async () => {
    const [latest] = await mailOf(stack.standIns, email);
    link = /https?:\/\/[^\s]+\/invitation\/[^\s]+/.exec(latest?.text ?? '')?.[0] ?? '';
    return link !== '';
  });
  return link;
}

test('somebody is invited, joins on a phone, may what was said, and is ended; the owner cannot leave', async () => {
  await visit(page, `${stack.web}/settings/people`);
  await expectAccessible(page, 'people');
  await press(page, 'Invite somebody', 'button');
  await type(page, 'E-mail address', 'linnet');
  await press(page, 'Send the invitation', 'button');
  await untilShown(page, 'Write an address such as');
  await type(page, 'E-mail address', 'linnet@lark.example');
  await pick(page, 'Role', 'Reader');
  await press(page, 'Take payments, charge cards, match the bank', 'checkbox');
  await expectAccessible(page, 'an invitation');
  await press(page, 'Send the invitation', 'button');
  await untilShown(page, 'Reader, and: Take payments');

  const guest = await openPage(browser, { width: 390, height: 844 });
  await visit(guest.page, await invitationTo('linnet@lark.example'));
  await expectAccessible(guest.page, 'the invitation');
  await type(guest.page, 'Your name', 'Linnet Abara');
  await type(guest.page, 'Password', 'short');
  await press(guest.page, `Work in ${house.business.name}`, 'button');
  await untilShown(guest.page, 'at least 10 signs');
  await type(guest.page, 'Password', 'eight herons on ice');
  await press(guest.page, `Work in ${house.business.name}`, 'button');
  await untilTrue(guest.page, () => location.pathname === '/today');
  // People are the owners' to decide.
  await visit(guest.page, `${stack.web}/settings/people`);
  await untilShown(guest.page, 'not here');

  await visit(page, `${stack.web}/settings/people`);
  await untilShown(page, 'Linnet Abara');
  await press(page, 'What Linnet Abara may do', 'button');
  await pick(page, 'Role', 'Clerk');
  await press(page, 'Save', 'button');
  await untilTrue(page, () => !document.querySelector('[role=dialog]'));
  await press(page, 'What Linnet Abara may do', 'button');
  await press(page, 'End their time here', 'button');
  await untilShown(page, 'signed out at once');
  await press(page, 'End their time here', 'button');
  await untilShown(page, 'left ');
  await visit(guest.page, `${stack.web}/today`);
  await untilTrue(guest.page, () => location.pathname === '/sign-in');

  await visit(page, `${stack.web}/settings/you`);
  await press(page, `Leave ${house.business.name}`, 'button');
  await press(page, `Leave ${house.business.name}`, 'button');
  await untilShown(page, 'keeps at least one owner');
  await visit(page, `${stack.web}/settings/log`);
  await untilShown(page, 'invited somebody');
  expect(errors).toEqual([]);
  guest.close();
});

test('one person in two businesses goes over and back by the menu behind the business’s name', async () => {
  const other = await foundHouse('Wren Boats', await passwordHash('another password here'), 'skipper@wren.example');
  const skipper = await openPage(browser);
  await visit(skipper.page, `${stack.web}/sign-in`);
  await type(skipper.page, 'E-mail address', 'skipper@wren.example');
  await type(skipper.page, 'Password', 'another password here');
  await skipper.page.keyboard.press('Enter');
  await untilTrue(skipper.page, () => location.pathname === '/today');
  await visit(skipper.page, `${stack.web}/settings/people`);
  await press(skipper.page, 'Invite somebody', 'button');
  await type(skipper.page, 'E-mail address', 'owner@sallow.example');
  await pick(skipper.page, 'Role', 'Bookkeeper');
  await press(skipper.page, 'Send the invitation', 'button');
  await untilShown(skipper.page, 'good until');

  // Signed in with that address: one press.
  await visit(page, await invitationTo('owner@sallow.example'));
  await untilShown(page, 'Wren Boats');
  expect(await page.$('input[type=password]')).toBeNull();
  await press(page, 'Work in Wren Boats', 'button');
  await untilTrue(page, () => location.pathname === '/today');
  await untilShown(page, 'Wren Boats');
  await pressHeard(page, 'g');
  await page.keyboard.press('b');
  await untilShown(page, `Go over to ${house.business.name}`);
  await page.keyboard.press('Enter');
  await untilTrue(
    page,
    (name: string) => document.querySelector('header')?.innerText.includes(name),
    house.business.name,
  );
  await choose(page, house.business.name, `Go over to ${other.business.name}`);
  await untilTrue(page, (name: string) => document.querySelector('header')?.innerText.includes(name), 'Wren Boats');
  // A bookkeeper does not invite.
  await visit(page, `${stack.web}/settings/people`);
  expect(await shown(page)).not.toContain('Invite somebody');
  // A further business of one's own, from the same menu: its first invoice is half written.
  await choose(page, 'Wren Boats', 'Begin another business');
  await type(page, 'Its name', 'Sallow Hire');
  await expectAccessible(page, 'another business');
  await press(page, 'Begin it', 'button');
  await untilTrue(page, () => location.pathname.startsWith('/ask/compose/'));
  await untilShown(page, '2 of 5 open');
  await page.keyboard.press('Escape');
  await choose(page, 'Sallow Hire', `Go over to ${house.business.name}`);
  await untilTrue(
    page,
    (name: string) => document.querySelector('header')?.innerText.includes(name),
    house.business.name,
  );
  expect(errors).toEqual([]);
  skipper.close();
});
